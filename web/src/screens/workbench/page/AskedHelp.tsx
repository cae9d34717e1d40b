import type { Block } from '@wickerframe/core'
import { TextLine } from '../../../controls/typed.tsx'
import { RichText } from './RichText.tsx'
import type { BlockEditing } from './blocks/editing.tsx'

/** The hint and the example that an instructor is given with what is asked for; nothing where nothing is. */
export const AskedHelp = ({
  block,
  sources,
  headingBefore,
  disabled,
  set,
}: BlockEditing<Block['kind']>) => {
  const left = 'left' in block ? block.left : undefined
  if (left?.as !== 'asked') return null
  const change = (field: 'hint' | 'example', value: string) => {
    const { [field]: _, ...others } = left
    set('left', left, value === '' ? others : { ...others, [field]: value })
  }
  return (
    <div className="mt-3 grid gap-2 border-t border-line pt-2">
      <p className="text-ink-2">
        Asked of the instructor: each line above stands there until it is answered.
      </p>
      <TextLine
        label="Hint, told with what is still to be filled in"
        value={left.hint ?? ''}
        onDone={(hint) => change('hint', hint.trim())}
      />
      <div>
        <p className="text-ink-2">An answer as it could be</p>
        <RichText
          label="An answer as it could be"
          html={left.example ?? ''}
          sources={sources}
          headingBefore={headingBefore}
          disabled={disabled}
          onDone={(html) => change('example', html)}
        />
      </div>
    </div>
  )
}
