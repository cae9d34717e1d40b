import type { Change } from '../../course/index.ts'
import type { Undoing } from './undoing.ts'

/**
 * The changes, and pages that lead to what comes back under a new id: their links lead there. What is written so is noted
 * among the pages.
 */
export const withLinksBack = ({
  changes,
  items,
  pages,
  record,
  remade,
  removed,
}: Undoing): Change[] => {
  const addresses = record.touched.flatMap(({ id, before }) =>
    before?.url && remade.has(id)
      ? [{ from: `href="${before.url}"`, to: `href="ref:${remade.get(id)}"` }]
      : [],
  )
  if (addresses.length === 0) return [...changes]
  const led = (html: string): string =>
    addresses.reduce((text, { from, to }) => text.replaceAll(from, to), html)
  const written = new Set(
    changes.flatMap((change) =>
      change.change === 'set-item' && change.fields.html !== undefined ? [change.id] : [],
    ),
  )
  return [
    ...changes.map((change) =>
      (change.change === 'set-item' || change.change === 'create-item') &&
      change.fields.html !== undefined
        ? ({ ...change, fields: { ...change.fields, html: led(change.fields.html) } } as Change)
        : change,
    ),
    ...[...items.values()].flatMap((item): Change[] => {
      if (item.html === null || removed.has(item.id) || written.has(item.id)) return []
      const html = led(item.html)
      if (html === item.html) return []
      pages.set(item.id, item.html)
      return [{ change: 'set-item', id: item.id, fields: { html } }]
    }),
  ]
}
