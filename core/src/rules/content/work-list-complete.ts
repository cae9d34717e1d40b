import { isShown, itemsIn } from '../../course/index.ts'
import { z } from 'zod'
import { foldedName } from '../../naming/index.ts'
import { defineRule, type Verdict } from '../rule.ts'

const work = new Set(['discussion', 'assignment', 'assessment', 'tool-link'])

export const workListComplete = defineRule({
  id: 'work-list-complete',
  group: 'page content',
  title: 'The list of work names what the module holds',
  why: 'Students do what the list says; what is not on it is not done, and what is on it but gone is searched for.',
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
      if (!page || reading.state === 'missing' || part.inBreak) {
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
      // The template’s own list leaves out what may go; a copy left over is told by itself; in a unit each week has a list of its own.
      const copies = new Set(context.pairing.copies.map((copy) => copy.found))
      const inUnit = (context.partAt(part.parent)?.weeks.length ?? 0) > 1
      const belongs = (id: string): boolean => {
        const other = context.partOf(id)
        return other
          ? other.strength !== 'may' && (!inUnit || other.week?.number === part.week?.number)
          : !inUnit && !copies.has(id)
      }
      const held = (there.module ? itemsIn(there.module) : []).filter(
        (item) =>
          item.id !== there.item.id && isShown(item) && work.has(item.kind) && belongs(item.id),
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
})
