import { type Change, itemsIn } from '../../course/index.ts'
import { gathered, wantedFields, type ExpectedPart } from '../../expand/index.ts'
import { renderPage } from '../../page/index.ts'
import { isModule } from '../../template/index.ts'
import type { CheckContext } from '../context.ts'

/** A page whose links lead to the items of this course; a link to a part that is not there becomes plain words. */
const withOwnLinks = (html: string, context: CheckContext): string =>
  html.replace(
    /<a href="ref:([^"]{1,300})">([^<]{0,500})<\/a>/g,
    (_, instance: string, words: string) => {
      const part = context.partAt(instance)
      const there = part && part.kind !== 'module' ? context.itemFor(part) : null
      return there ? `<a href="item:${there.item.id}">${words}</a>` : words
    },
  )

/** The change that makes a missing item anew as the template has it, after the sibling it follows; null where its module is missing too. */
export const broughtBack = (part: ExpectedPart, context: CheckContext): Change | null => {
  const parent = context.partAt(part.parent)
  const module = parent ? context.moduleFor(parent) : null
  const { definition } = part
  if (!parent || !module || isModule(definition)) return null
  const before = parent.items
    .slice(0, parent.items.indexOf(part))
    .flatMap((item) => (item.kind === 'module' ? [] : (context.itemFor(item)?.item ?? [])))
    .findLast((item) => itemsIn(module).includes(item))
  return {
    change: 'create-item',
    clientId: part.instance,
    module: module.id,
    at: before ? itemsIn(module).indexOf(before) + 1 : 0,
    kind: definition.kind,
    fields: {
      ...(gathered(null, wantedFields(part, context.expected)) as { name: string }),
      ...(part.blocks.length > 0
        ? { html: withOwnLinks(renderPage(part, context.asOf), context) }
        : {}),
    },
  }
}
