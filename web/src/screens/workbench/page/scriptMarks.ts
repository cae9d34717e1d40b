import { Mark } from '@tiptap/react'

/** Raised and lowered text, as in H₂O and x²; never both. */
const script = (name: 'superscript' | 'subscript', tag: 'sup' | 'sub', other: string) =>
  Mark.create({ name, excludes: other, parseHTML: () => [{ tag }], renderHTML: () => [tag, 0] })

export const scriptMarks = [
  script('superscript', 'sup', 'subscript'),
  script('subscript', 'sub', 'superscript'),
]
