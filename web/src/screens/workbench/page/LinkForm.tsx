import type { Editor } from '@tiptap/react'
import { useState } from 'react'
import { handoutTo } from '@wickerframe/core'
import { Button } from '../../../controls/controls.tsx'
import { Tick } from '../../../controls/typed.tsx'
import type { PageSources } from './pageSources.ts'
import { PlaceSearch, type LinkPlace } from './PlaceSearch.tsx'

/** Makes a link of what is selected, or puts one in: to a part, whose name it may follow, to a file, or to an address. */
export const LinkForm = ({
  editor,
  sources,
  onClose,
}: {
  editor: Editor
  sources: PageSources
  onClose: () => void
}) => {
  const isSelected = !editor.state.selection.empty
  const [follows, setFollows] = useState(!isSelected)
  const put = (place: LinkPlace) => {
    const href =
      'part' in place
        ? `part:${place.part}`
        : 'file' in place
          ? handoutTo(place.file)
          : place.address
    const keepsWords = isSelected && !('part' in place && follows)
    const attrs = { href, ...('part' in place && follows ? { 'data-follows': 'name' } : {}) }
    if (keepsWords) editor.chain().focus().setMark('link', attrs).run()
    else {
      const text = 'address' in place ? place.address.replace(/^(?:mailto|tel):/, '') : place.name
      editor
        .chain()
        .focus()
        .insertContent({ type: 'text', text, marks: [{ type: 'link', attrs }] })
        .run()
    }
    onClose()
  }
  return (
    <div className="flex flex-wrap items-start gap-3 border border-line bg-band p-2">
      <PlaceSearch sources={sources} onChoose={put} onClose={onClose} />
      <div className="grid gap-1">
        <Tick
          label="shows the part’s name, and follows it"
          checked={follows}
          onChange={setFollows}
        />
        <Button shape="word" onClick={onClose}>
          never mind
        </Button>
      </div>
    </div>
  )
}
