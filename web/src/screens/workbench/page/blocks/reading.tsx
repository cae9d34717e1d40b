import { Button } from '../../../../controls/controls.tsx'
import { NumberLine, TextLine } from '../../../../controls/typed.tsx'
import { HeadingField, type BlockEditing } from './editing.tsx'

export const ReadingEditor = ({ block, set }: BlockEditing<'reading'>) => (
  <div className="grid gap-2">
    <HeadingField label={block.label} set={set} />
    {block.works.map((work, i) => {
      const change = (more: object) =>
        set(
          'works',
          block.works,
          block.works.map((work, j) =>
            j === i
              ? Object.fromEntries(
                  Object.entries({ ...work, ...more }).filter(([, value]) => value !== null),
                )
              : work,
          ),
        )
      return (
        <div key={i} className="flex flex-wrap items-end gap-2">
          <TextLine
            label="What, with its pages"
            className="grow"
            value={work.text}
            onDone={(text) => text.trim() !== '' && change({ text })}
          />
          <TextLine
            label="Address"
            value={work.url ?? ''}
            onDone={(url) => change({ url: url || null })}
          />
          <NumberLine
            label="Minutes"
            most={6000}
            value={work.minutes}
            onDone={(minutes) => change({ minutes })}
          />
          {block.works.length > 1 && (
            <Button
              shape="word"
              onClick={() =>
                set(
                  'works',
                  block.works,
                  block.works.filter((_, j) => j !== i),
                )
              }
            >
              take out
            </Button>
          )}
        </div>
      )
    })}
    <Button
      shape="word"
      className="justify-self-start"
      onClick={() =>
        set('works', block.works, [...block.works, { text: 'What to read, with its pages' }])
      }
    >
      add a work
    </Button>
  </div>
)
