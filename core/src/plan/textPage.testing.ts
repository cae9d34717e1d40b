import { newItem, type Item } from '../template/index.ts'

/** A page that says its own name. */
export const textPage = (key: string, name: string): Item => ({
  ...newItem('page', key, name),
  blocks: [{ kind: 'fixed-text', key: 'text', strength: 'must', html: `<p>${name}.</p>` }],
})
