import { mergeAttributes, Node } from '@tiptap/react'

/** An image in a page. Its alternative text is asked for when it is put in; an empty one marks decoration. */
export const ImageNode = Node.create<{ sourceOf: (source: string) => string | null }>({
  name: 'image',
  group: 'block',
  draggable: true,
  addOptions: () => ({ sourceOf: () => null }),
  addAttributes: () => ({ src: { default: '' }, alt: { default: null } }),
  parseHTML: () => [{ tag: 'img[src]' }],
  renderHTML: ({ HTMLAttributes }) => ['img', mergeAttributes(HTMLAttributes)],
  addNodeView() {
    const { sourceOf } = this.options
    return ({ node }) => {
      const dom = document.createElement('figure')
      const source = sourceOf(String(node.attrs['src']))
      if (source !== null) {
        const image = document.createElement('img')
        image.src = source
        image.alt = ''
        dom.append(image)
      }
      const caption = document.createElement('figcaption')
      const { src, alt } = node.attrs
      caption.textContent = String(src).startsWith('waiting:')
        ? 'a picture: say below what it shows'
        : alt === null
          ? 'no alternative text'
          : alt === ''
            ? 'decoration'
            : `Shows: ${String(alt)}`
      dom.append(caption)
      return { dom }
    }
  },
})
