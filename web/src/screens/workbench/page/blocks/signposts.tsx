import { Button, Pick } from '../../../../controls/controls.tsx'
import { TextLine } from '../../../../controls/typed.tsx'
import { LineField, type BlockEditing } from './editing.tsx'

export const SignpostsEditor = ({ block, sources, set }: BlockEditing<'signposts'>) => (
  <div className="grid gap-2">
    <LineField field="label" label="Heading above it" value={block.label} set={set} />
    {block.links.map((link, i) => (
      <div key={i} className="flex flex-wrap items-end gap-2">
        <TextLine
          label="Says"
          value={link.text}
          onDone={(text) =>
            text.trim() !== '' &&
            set(
              'links',
              block.links,
              block.links.map((link, j) => (j === i ? { ...link, text } : link)),
            )
          }
        />
        <Pick
          label="leads to"
          className="min-w-0 [&>select]:max-w-48"
          value={link.to}
          onChange={(event) =>
            set(
              'links',
              block.links,
              block.links.map((link, j) => (j === i ? { ...link, to: event.target.value } : link)),
            )
          }
          options={sources.parts.map((part) => ({ value: part.key, text: part.name }))}
        />
        {block.links.length > 1 && (
          <Button
            shape="word"
            onClick={() =>
              set(
                'links',
                block.links,
                block.links.filter((_, j) => j !== i),
              )
            }
          >
            take out
          </Button>
        )}
      </div>
    ))}
    <Button
      shape="word"
      className="justify-self-start"
      onClick={() =>
        set('links', block.links, [
          ...block.links,
          { text: 'Go on', to: sources.parts[0]?.key ?? '' },
        ])
      }
    >
      add a signpost
    </Button>
  </div>
)
