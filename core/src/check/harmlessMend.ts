import {
  applyChanges,
  documentHand,
  reachedItems,
  touchesWork,
  type Change,
  type Course,
  type CourseItem,
} from '../course/index.ts'
import { analysePage } from '../page/index.ts'
import { keptFromStudents, type CheckContext, type KeptBecause } from '../rules/index.ts'
import type { MendRefusal } from './outcome.ts'

/** Whether setting these fields may bring what they are of into students' view. */
const opens = (fields: {
  published?: boolean | undefined
  staffOnly?: boolean | undefined
}): boolean => fields.published === true || fields.staffOnly === false

/**
 * Whether a change may bring something into students' view.
 * @param moduleOf the module in which an item stands, by id
 */
export const mayShow = (change: Change, moduleOf: (id: string) => string | null): boolean =>
  (change.change === 'move-item' && moduleOf(change.id) !== change.module) ||
  change.change === 'create-item' ||
  ((change.change === 'set-item' || change.change === 'set-module') && opens(change.fields)) ||
  (change.change === 'set-course' && change.published === true)

/** Items kept from students that a course shows and another state of it did not. */
export const newlyShown = (
  before: Course,
  after: Course,
  kept: ReadonlyMap<string, KeptBecause>,
): string[] => {
  const seen = reachedItems(before)
  return [...reachedItems(after)].filter((id) => kept.has(id) && !seen.has(id))
}

const wordsIn = (text: string): string[] => text.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? []

/** What a page holds beside its words: pictures, films, links, tables. */
const thingsIn = (html: string): string[] => {
  const page = analysePage(html)
  return [
    ...page.images.map((image) => `image ${image.source} ${image.alternativeText ?? ''}`),
    ...page.media.map(({ source }) => `media ${source}`),
    ...page.links.map((link) => `link ${link.text}`),
  ]
}

/** Words and things of a page that a new page no longer has, each as often as it is gone. */
const goneFrom = (old: string, next: string): { words: string[]; things: string[] } => {
  const without = (all: readonly string[], kept: readonly string[]): string[] => {
    const counts = new Map<string, number>()
    for (const id of kept) counts.set(id, (counts.get(id) ?? 0) + 1)
    return all.filter((id) => {
      const left = counts.get(id) ?? 0
      counts.set(id, left - 1)
      return left <= 0
    })
  }
  const textOf = (html: string) =>
    analysePage(html)
      .paragraphs.map((paragraph) => paragraph.text)
      .join(' ')
  return {
    words: without(wordsIn(textOf(old)), wordsIn(textOf(next))),
    things: without(thingsIn(old), thingsIn(next)),
  }
}

/** Everything the template itself may have put on the page of an item, in whatever revision. */
const ourHtml = (id: string, context: CheckContext): string => {
  const part = context.partOf(id)
  return (part?.blocks ?? [])
    .flatMap(({ html, definition, houseText }) => [
      html,
      ...(definition.kind === 'fill-in' ? [definition.prompt, ...definition.earlierPrompts] : []),
      ...(houseText?.revisions.map((revision) => revision.html) ?? []),
    ])
    .join(' ')
}

/** Whether a page would lose something that is not the template's own. */
const losesWords = (item: CourseItem, html: string, context: CheckContext): boolean => {
  const gone = goneFrom(item.html ?? '', html)
  if (gone.words.length === 0 && gone.things.length === 0) return false
  const ours = ourHtml(item.id, context)
  const words = new Set(
    wordsIn(
      analysePage(ours)
        .paragraphs.map((paragraph) => paragraph.text)
        .join(' '),
    ),
  )
  const things = new Set(thingsIn(ours))
  // A note is introduced by words of the renderer’s own.
  for (const word of wordsIn('Note to the instructor')) words.add(word)
  return (
    gone.words.some((word) => !words.has(word)) || gone.things.some((thing) => !things.has(thing))
  )
}

/**
 * A mend made harmless, or the reason why it is not to be had: nothing that is kept from students comes into their view (it
 * is hidden first, item by item), no word or picture that is not the template's is lost, and how work that students handed
 * in counts is left alone. Every rule's mend goes through here.
 */
export const harmlessMend = (
  mend: readonly Change[],
  context: CheckContext,
): { changes: Change[] } | { refusal: MendRefusal } => {
  const { course } = context
  for (const change of mend) {
    if (change.change !== 'set-item') continue
    const item = context.itemAt(change.id)
    if (!item) continue
    const fields = Object.keys(change.fields)
    if (item.studentWork && fields.some((field) => touchesWork(field) || datesOfWork.has(field)))
      return { refusal: { code: 'student-work', name: item.name } }
    if (change.fields.html !== undefined && losesWords(item, change.fields.html, context))
      return { refusal: { code: 'own-words', name: item.name } }
  }
  const moduleOf = (id: string): string | null => context.placed(id)?.module?.id ?? null
  if (!mend.some((change) => mayShow(change, moduleOf))) return { changes: [...mend] }
  const kept = keptFromStudents(context)
  if (kept.size === 0) return { changes: [...mend] }
  const applied = applyChanges(course, mend, documentHand(course))
  if (!applied.ok) return { changes: [...mend] }
  const shown = newlyShown(course, applied.value.course, kept)
  const opened = new Set(
    mend.flatMap((change) =>
      change.change === 'set-item' && opens(change.fields) ? [change.id] : [],
    ),
  )
  for (const id of shown) {
    const item = context.itemAt(id)
    if (item && opened.has(id)) return { refusal: { code: 'shows-hidden', name: item.name } }
  }
  return {
    changes: [
      ...shown.map((id): Change => ({ change: 'set-item', id, fields: { published: false } })),
      ...mend,
    ],
  }
}

/** Dates that students who handed in had before them. */
const datesOfWork: ReadonlySet<string> = new Set(['opensAt', 'dueAt', 'closesAt'])

/** Why a mend is not made, in words. */
export const refusalWords = ({ code, name }: MendRefusal): string =>
  ({
    'student-work': `students have work in “${name}”; how it counts and when it is due is left alone`,
    'own-words': `something on “${name}” is somebody’s own and would be lost; take out by hand what is not`,
    'shows-hidden': `“${name}” is kept from students and would be shown to them`,
  })[code]
