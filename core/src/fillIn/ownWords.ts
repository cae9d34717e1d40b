import { parseFragment, serialize, type DefaultTreeAdapterTypes } from 'parse5'
import { letIn, type LetIn } from '../allow/index.ts'

/** Addresses that say something in a template, and lead nowhere in a course. */
const ofTemplates = /^\s*(?:ref|part|asset|handout|house-file|house-text):/i
/** By these deployment knows its blocks; whoever copies from a page copies them along. */
const isMark = (name: string): boolean => name.startsWith('data-wicker-')

/**
 * HTML of an instructor’s own as it may come into a page: let in like any, with nothing in it that would be taken for something of
 * a template.
 */
export const ownWords = (html: string): LetIn => {
  const refused: string[] = []
  const clean = (parent: DefaultTreeAdapterTypes.ParentNode): void => {
    for (const node of parent.childNodes) {
      if (!('attrs' in node)) continue
      node.attrs = node.attrs.filter(({ name, value }) => {
        const leadsNowhere = (name === 'href' || name === 'src') && ofTemplates.test(value)
        if (leadsNowhere) refused.push(`the address “${value.slice(0, 80)}”`)
        return !leadsNowhere && !isMark(name)
      })
      clean(node)
    }
  }
  const fragment = parseFragment(html)
  clean(fragment)
  const allowed = letIn(serialize(fragment))
  return { html: allowed.html, refused: [...refused, ...allowed.refused] }
}
