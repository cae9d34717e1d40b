import { Button, Pick } from '../../../../controls/controls.tsx'
import { TextLine } from '../../../../controls/typed.tsx'
import { LineField, type BlockEditing, type BlockOf } from './editing.tsx'
import { PickImage } from './PickImage.tsx'

type Signpost = BlockOf<'signposts'>['links'][number]

export const SignpostsEditor = ({ block, template, sources, set }: BlockEditing<'signposts'>) => {
  const setLinks = (links: readonly Signpost[]) => set('links', block.links, links)
  const change = (at: number, to: (link: Signpost) => Signpost) =>
    setLinks(block.links.map((link, i) => (i === at ? to(link) : link)))
  const withOut = (link: Signpost, field: 'about' | 'image'): Signpost => {
    const { [field]: _, ...rest } = link
    return rest
  }
  return (
    <div className="grid gap-2">
      <div className="flex flex-wrap items-end gap-3">
        <LineField field="label" label="Heading above it" value={block.label} set={set} />
        <Pick
          label="Shown as"
          value={block.as ?? ''}
          onChange={(event) => set('as', block.as, event.target.value || null)}
          options={[
            { value: '', text: 'a list' },
            { value: 'route', text: 'a numbered route' },
            { value: 'cards', text: 'cards beside one another' },
          ]}
        />
      </div>
      {block.links.map((link, i) => (
        <div key={i} className="flex flex-wrap items-end gap-2">
          <TextLine
            label="Says"
            value={link.text}
            onDone={(text) => text.trim() !== '' && change(i, (link) => ({ ...link, text }))}
          />
          <Pick
            label="leads to"
            className="min-w-0 [&>select]:max-w-48"
            value={link.to}
            onChange={(event) => change(i, (link) => ({ ...link, to: event.target.value }))}
            options={sources.parts.map((part) => ({ value: part.key, text: part.name }))}
          />
          <TextLine
            label="what is found there"
            value={link.about ?? ''}
            onDone={(about) =>
              change(i, (link) =>
                about.trim() === '' ? withOut(link, 'about') : { ...link, about },
              )
            }
          />
          {block.as === 'cards' && (
            <PickImage
              label="small drawing"
              none="none"
              value={link.image}
              of={{ template, sources }}
              onDone={(image) =>
                change(i, (link) => (image === null ? withOut(link, 'image') : { ...link, image }))
              }
            />
          )}
          {block.links.length > 1 && (
            <Button
              shape="word"
              onClick={() => setLinks(block.links.filter((_, other) => other !== i))}
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
          setLinks([...block.links, { text: 'Go on', to: sources.parts[0]?.key ?? '' }])
        }
      >
        add a signpost
      </Button>
    </div>
  )
}
