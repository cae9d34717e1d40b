import { Pick } from '../../../../controls/controls.tsx'
import type { BlockEditing } from './editing.tsx'
import type { Block } from '@wickerframe/core'

/** Chooses one of the template's images, or none. */
export const PickImage = ({
  label,
  value,
  none,
  template,
  onDone,
}: {
  label: string
  value: string | undefined
  /** What it says where there is none; without it, there is always one. */
  none?: string
  template: BlockEditing<Block['kind']>['template']
  onDone: (image: string | null) => void
}) => (
  <Pick
    label={label}
    className="min-w-0 [&>select]:max-w-80"
    value={value ?? ''}
    onChange={(event) => onDone(event.target.value || null)}
    options={[
      ...(none === undefined ? [] : [{ value: '', text: none }]),
      ...template.assets.map((asset) => ({
        value: asset.key,
        text: `${asset.fileName}: ${asset.alternativeText}`,
      })),
    ]}
  />
)
