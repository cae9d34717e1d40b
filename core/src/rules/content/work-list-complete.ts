import { isShown, itemsIn, type Change, type CourseItem } from '../../course/index.ts'
import type { ExpectedPart } from '../../expand/index.ts'
import { z } from 'zod'
import { foldedName } from '../../naming/index.ts'
import { escapeHtml } from '../../template/index.ts'
import type { CheckContext } from '../context.ts'
import { defineRule, type Verdict } from '../rule.ts'

const work = new Set(['discussion', 'assignment', 'assessment', 'tool-link'])

/**
 * Whether work in the module of a list belongs in that list. The template's own list leaves out what may go; a copy left
 * over is told by itself. Where several weeks stand in one module, each has a list of its own, and what the instructor
 * added belongs to the week in which it is due.
 */
const belongsTo = (context: CheckContext, list: ExpectedPart): ((item: CourseItem) => boolean) => {
  const module = context.partAt(list.parent)
  const isOfOneWeek = (module?.weeks.length ?? 0) > 1 && list.weeks.length <= 1
  const isMerged = context.sharesModule(module)
  const copies = new Set(context.pairing.copies.map((copy) => copy.found))
  const isDueThen = ({ dueAt }: CourseItem): boolean => {
    const day = dueAt === null ? null : context.dateOf(dueAt)
    return day !== null && list.week !== null && day >= list.week.first && day <= list.week.last
  }
  return (item) => {
    const part = context.partOf(item.id)
    // A discussion of the instructor's own that is neither graded nor due is talk, and no work.
    if (part === null && item.kind === 'discussion' && item.points === null && item.dueAt === null)
      return false
    if (part === null) return isOfOneWeek || isMerged ? isDueThen(item) : !copies.has(item.id)
    if (part.strength === 'may') return false
    if (isOfOneWeek) return part.week?.number === list.week?.number
    return !isMerged || part.parent === list.parent
  }
}

export const workListComplete = defineRule({
  id: 'work-list-complete',
  group: 'page content',
  title: 'The list of work names what the module holds',
  why: 'Students do what the list says; what is not on it is not done, and what is on it but gone is searched for.',
  untold:
    'What may be left out, copies that are told as such, and a discussion of the instructor’s own that has neither points nor a due date: it is talk, and no work. Where several weeks stand in one module, each list is asked for the work of its own week; own work without a date is then asked of none.',
  strength: 'should',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 3,
  messages: {
    unlisted: 'The list of work in “{item}” leaves out {seen}.',
    unlinked: 'The list of work in “{item}” names {seen} without a link to it.',
    gone: 'The list of work in “{item}” still names {seen}, which is not in the module.',
  },
  *check(context): Generator<Verdict> {
    for (const { part, block, told, stands } of context.blocks()) {
      if (block.kind !== 'work-list') continue
      if (!stands) {
        yield { ...told, outcome: 'absent' }
        continue
      }
      const { reading, there } = stands
      const page = context.pageOf(there.item)
      if (!page || reading.state === 'missing' || part.inBreak || context.awaitsUnits(part)) {
        yield { ...told, outcome: 'inapplicable' }
        continue
      }
      const places = new Set(reading.paragraphs)
      const links = page.links.filter((link) =>
        reading.byMarker ? link.block === block.key : places.has(link.paragraph),
      )
      const linked = new Set(
        links.flatMap((link) => {
          const target = context.leadsTo(link.href)
          return target.leads === 'item' ? [target.id] : []
        }),
      )
      const lines = reading.paragraphs.map((i) => foldedName(page.paragraphs[i]?.text ?? ''))
      const belongs = belongsTo(context, part)
      const held = (there.module ? itemsIn(there.module) : []).filter(
        (item) =>
          item.id !== there.item.id && isShown(item) && work.has(item.kind) && belongs(item),
      )
      const dead = links
        .filter((link) => context.leadsTo(link.href).leads === 'nowhere')
        .map((link) => foldedName(link.text))
      const named = (name: string) => lines.some((line) => line.includes(foldedName(name)))
      const unlisted = held
        .filter((item) => !linked.has(item.id) && !named(item.name))
        .map((item) => item.name)
      const unlinked = held
        .filter((item) => !linked.has(item.id) && named(item.name))
        .map((item) => item.name)
      // A part that is not in the course, but whose very name still stands in the list; a link to it is told as dead.
      const gone =
        context
          .partAt(part.parent)
          ?.items.filter(
            (item) =>
              item.kind !== 'module' &&
              !context.itemFor(item) &&
              named(item.name) &&
              !dead.includes(foldedName(item.name)),
          )
          .map((item) => item.name) ?? []
      const [message, seen] =
        gone.length > 0
          ? (['gone', gone] as const)
          : unlisted.length > 0
            ? (['unlisted', unlisted] as const)
            : (['unlinked', unlinked] as const)
      if (seen.length === 0) yield { ...told, outcome: 'passed' }
      else if (!context.reached(context.needOf(part)))
        yield { ...told, outcome: 'not-due-yet', dueOn: context.needOf(part) }
      else
        yield {
          ...told,
          outcome: 'failed',
          message,
          values: { item: there.item.name, seen: seen.map((name) => `“${name}”`).join(', ') },
          evidence: seen.map((text) => ({ kind: 'words', text }) as const),
          expected: 'a link to each piece of work in the module',
          itemId: there.item.id,
          together: `${part.key}/${block.key}`,
        }
    }
  },
  mend(verdict, context): Change[] {
    const there = verdict.itemId === undefined ? null : context.placed(verdict.itemId)
    if (verdict.message !== 'unlinked' || !there?.module || there.item.html === null) return []
    const items = itemsIn(there.module)
    let html: string | null = there.item.html
    for (const { text: name } of verdict.evidence) {
      const called = items.filter((item) => item.name === name)
      html = called.length === 1 && html !== null ? linked(html, name, called[0]?.id ?? '') : null
    }
    return html === null ? [] : [{ change: 'set-item', id: there.item.id, fields: { html } }]
  },
})

/** A page in which the one line of a list that says a name, and nothing else, leads to the item of that name; null where no one line does. */
const linked = (html: string, name: string, id: string): string | null => {
  const words = escapeHtml(name)
  const [before, after, ...more] = html.split(`<li>${words}</li>`)
  return before === undefined || after === undefined || more.length > 0
    ? null
    : `${before}<li><a href="item:${id}">${words}</a></li>${after}`
}
