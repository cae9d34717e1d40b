import { EditorContent, useEditor } from '@tiptap/react'
import StarterKit from '@tiptap/starter-kit'
import { useEffect } from 'react'

/** Edits the HTML of a block; hands it on when the field is left and something changed. */
export const RichText = ({ html, label, onDone }: { html: string; label: string; onDone: (html: string) => void }) => {
  const editor = useEditor({
    extensions: [StarterKit.configure({ heading: { levels: [3, 4] }, link: { openOnClick: false, protocols: ['part'], isAllowedUri: (url, { defaultValidate }) => url.startsWith('part:') || defaultValidate(url) } })],
    content: html,
    editorProps: { attributes: { class: 'prose-field', role: 'textbox', 'aria-multiline': 'true', 'aria-label': label } },
    onBlur: ({ editor: self }) => {
      const now = self.getHTML()
      if (now !== html) onDone(now)
    },
  })
  useEffect(() => {
    if (!editor.isFocused && editor.getHTML() !== html) editor.commands.setContent(html, { emitUpdate: false })
  }, [editor, html])
  return <EditorContent editor={editor} />
}
