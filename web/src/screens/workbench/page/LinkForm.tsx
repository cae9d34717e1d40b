import type { Editor } from '@tiptap/react'
import { useState } from 'react'
import { Button } from '../../../controls/controls.tsx'
import { Tick } from '../../../controls/typed.tsx'
import type { PageSources } from './pageSources.ts'

/** Puts in a link to a part, which may follow its name, or to an address outside. */
export const LinkForm = ({
  editor,
  sources,
  onClose,
}: {
  editor: Editor
  sources: PageSources
  onClose: () => void
}) => {
  const [to, setTo] = useState(sources.parts[0]?.key ?? '')
  const [follows, setFollows] = useState(true)
  const [address, setAddress] = useState('')
  const chosen = sources.parts.find((part) => part.key === to)
  const selected = editor.state.selection.empty
    ? ''
    : editor.state.doc.textBetween(editor.state.selection.from, editor.state.selection.to)
  const put = () => {
    const outside = address.trim()
    const text =
      selected !== '' && !follows
        ? selected
        : outside !== ''
          ? selected || outside
          : (chosen?.name ?? to)
    const attrs =
      outside !== ''
        ? { href: outside }
        : { href: `part:${to}`, ...(follows ? { 'data-follows': 'name' } : {}) }
    editor
      .chain()
      .focus()
      .insertContent({ type: 'text', text, marks: [{ type: 'link', attrs }] })
      .run()
    onClose()
  }
  return (
    <div className="flex flex-wrap items-end gap-3 border border-line bg-band p-2">
      <label className="flex flex-col text-ink-2">
        Leads to
        <select
          className="max-w-56 border border-line-strong bg-sheet px-1 py-0.5 text-ink"
          value={to}
          disabled={address !== ''}
          onChange={(event) => setTo(event.target.value)}
        >
          {sources.parts.map((part) => (
            <option key={part.key} value={part.key}>
              {part.name}
            </option>
          ))}
        </select>
      </label>
      <label className="flex flex-col text-ink-2">
        or an address
        <input
          className="w-44 border border-line-strong bg-sheet px-1 py-0.5 text-ink"
          placeholder="https://"
          value={address}
          onChange={(event) => setAddress(event.target.value)}
        />
      </label>
      {address === '' && (
        <Tick
          label="shows the part’s name, and follows it"
          checked={follows}
          onChange={setFollows}
        />
      )}
      <Button
        disabled={address === '' ? to === '' : !/^(https?:|mailto:)/.test(address.trim())}
        onClick={put}
      >
        Put link in
      </Button>
      <Button shape="word" onClick={onClose}>
        never mind
      </Button>
    </div>
  )
}
