import { everyCourseItem, type Change, type Course } from '../course/index.ts'
import { analysePage } from '../page/index.ts'
import type { Base } from './base.ts'
import type { Bodies } from './bodies.ts'
import type { Consequence } from './consequence.ts'

const countWords = (html: string): number =>
  analysePage(html).paragraphs.reduce((sum, { text }) => sum + text.split(/\s+/).length, 0)

/**
 * Pages somebody wrote in that a plan would empty, shorten by half or take out, by name: put to the designer before anything
 * is approved. A page that is as we left it is ours to write anew.
 */
export const shortenedPages = (
  changes: readonly Change[],
  course: Course,
  base: Base,
  bodies: Bodies,
): Consequence[] => {
  const ours = new Map(base.parts.map((entry) => [entry.platformId, entry.page]))
  const items = new Map(everyCourseItem(course).map(({ item }) => [item.id, item]))
  const names = changes.flatMap((change) => {
    if (change.change !== 'set-item' && change.change !== 'remove-item') return []
    const wanted = change.change === 'remove-item' ? '' : change.fields.html
    const item = items.get(change.id)
    if (wanted === undefined || !item?.html || ours.get(item.id) === bodies.idOf(item.html))
      return []
    const now = countWords(item.html)
    const then = countWords(wanted)
    return now > 0 && then * 2 <= now
      ? [`“${item.name}”: ${now} words, of which ${then} would be left`]
      : []
  })
  return names.length === 0
    ? []
    : [
        {
          code: 'shortened',
          count: names.length,
          example: names[0] ?? '',
          all: names.slice(0, 200),
        },
      ]
}
