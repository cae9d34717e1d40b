import { answerTypes } from '@wickerframe/core'
import { Button, Pick } from '../../../../controls/controls.tsx'
import { NumberLine, TextLines } from '../../../../controls/typed.tsx'
import { HtmlField, LineField, WrittenField, type BlockEditing } from './editing.tsx'

/** An empty text is none. */
const orNothing =
  (set: BlockEditing<'fill-in'>['set']): typeof set =>
  (field, was, value) =>
    set(field, was, value === '' ? null : value)

export const FillInEditor = (of: BlockEditing<'fill-in'>) => {
  const { block, template, set } = of
  return (
    <div className="grid gap-2">
      <LineField field="label" label="Heading above it" value={block.label} set={set} />
      <TextLines
        label="Prompt: what stands there until it is filled in"
        rows={2}
        value={block.prompt}
        onDone={(prompt) => prompt.trim() !== '' && set('prompt', block.prompt, prompt)}
      />
      <LineField
        field="hint"
        label="Hint, told with what is still to be filled in"
        value={block.hint}
        set={set}
      />
      <WrittenField
        field="example"
        label="An answer as it could be"
        html={block.example ?? ''}
        of={{ ...of, set: orNothing(set) }}
      />
      <div className="flex flex-wrap items-end gap-3">
        <Pick
          label="Wants"
          value={block.type}
          onChange={(event) => set('type', block.type, event.target.value)}
          options={answerTypes.map((type) => ({
            value: type,
            text: type === 'rich-text' ? 'rich text' : type,
          }))}
        />
        <Pick
          label="Answered"
          value={block.scope}
          onChange={(event) => set('scope', block.scope, event.target.value)}
          options={[
            { value: 'place', text: 'in this place' },
            { value: 'course', text: 'once for the whole course' },
          ]}
        />
        <NumberLine
          label="Words at least"
          least={1}
          most={5000}
          value={block.minWords}
          onDone={(value) => set('minWords', block.minWords, value)}
        />
        <NumberLine
          label="at most"
          least={1}
          most={5000}
          value={block.maxWords}
          onDone={(value) => set('maxWords', block.maxWords, value)}
        />
      </div>
      {(template.extends || block.answer !== undefined) && (
        <div>
          <p className="text-ink-2">Answered by this layer; the instructor is not asked then</p>
          {block.answer === undefined ? (
            <Button shape="word" onClick={() => set('answer', null, '<p></p>')}>
              answer it here
            </Button>
          ) : (
            <>
              <HtmlField field="answer" label="Answer" html={block.answer} of={of} />
              <Button shape="word" onClick={() => set('answer', block.answer, null)}>
                leave it to the instructor
              </Button>
            </>
          )}
        </div>
      )}
    </div>
  )
}
