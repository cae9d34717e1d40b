import { parseFormat } from '@wickerframe/core'
import { TextLine } from '../../../../controls/typed.tsx'
import type { BlockEditing } from './editing.tsx'
import { PickImage } from './PickImage.tsx'

/** A line with fields that may be empty; what is wrong with it is said, and not kept. */
const Words = ({
  field,
  label,
  value,
  hint,
  set,
}: Pick<BlockEditing<'banner'>, 'set'> & {
  field: 'above' | 'text'
  label: string
  value: string | undefined
  hint: string
}) => (
  <TextLine
    label={label}
    hint={hint}
    value={value ?? ''}
    onDone={(now) => parseFormat(now).ok && set(field, value, now.trim() || null)}
  />
)

export const BannerEditor = ({ block, template, sources, set }: BlockEditing<'banner'>) => (
  <div className="grid gap-2">
    <PickImage
      label="Shows"
      value={block.image}
      of={{ template, sources }}
      onDone={(image) => image !== null && set('image', block.image, image)}
    />
    <Words
      field="text"
      label="Title on it"
      hint="with fields such as {title}; empty: a picture alone"
      value={block.text}
      set={set}
    />
    <Words
      field="above"
      label="Line above the title"
      hint="such as {code} · {term}; only where there is a title"
      value={block.above}
      set={set}
    />
  </div>
)
