import { z } from 'zod'
import { type Change, isShown, itemsIn } from '../../course/index.ts'
import type { ExpectedPart } from '../../expand/index.ts'
import { fewestMoves } from '../../pair/index.ts'
import type { CheckContext } from '../context.ts'
import { aboutPart, defineRule, type Verdict } from '../rule.ts'

/** Whether a part may stand anywhere: by its template, or once in a unit whose weeks each have parts of their own. */
const isFree = (context: CheckContext, part: ExpectedPart): boolean =>
  part.definition.position === 'anywhere' ||
  context.awaitsUnits(part) ||
  (part.kind !== 'module' && part.weeks.length > 1 && isGrouped(context, part))

const isGrouped = (context: CheckContext, { parent }: ExpectedPart): boolean =>
  context.groupings[context.partAt(parent)?.key ?? '']?.state === 'grouped'

export const outOfOrder = defineRule({
  id: 'out-of-order',
  group: 'structure',
  title: 'Parts stand in the order students meet everywhere else',
  why: 'Students who take five courses rely on the same order in each; a checklist before its reading is ticked off unread.',
  untold:
    'Parts that may stand anywhere, hidden modules, and parts that stand once in a unit while each of its weeks has parts of its own.',
  strength: 'should',
  parameters: z.strictObject({}),
  mender: 'designer',
  effortMinutes: 1,
  messages: { after: '“{name}” stands {place}; it comes {wanted}.' },
  *check(context): Generator<Verdict> {
    for (const siblings of siblingGroups(context)) {
      const misplaced = misplacedIn(context, siblings)
      for (const [i, part] of siblings.entries()) {
        const subject = aboutPart(part)
        const found = foundOf(context, part)
        if (found === null) yield { subject, outcome: 'absent' }
        else if (isFree(context, part)) yield { subject, outcome: 'inapplicable' }
        else if (!misplaced.has(part.instance)) yield { subject, outcome: 'passed' }
        else {
          const before = siblings
            .slice(0, i)
            .findLast(
              (sibling) => foundOf(context, sibling) !== null && !misplaced.has(sibling.instance),
            )
          const wanted = before
            ? `after “${foundOf(context, before)?.name ?? before.name}”`
            : 'first'
          yield {
            subject,
            outcome: 'failed',
            message: 'after',
            values: { name: found.name, place: ordinalPlace(found.place), wanted },
            evidence: [{ kind: 'value', text: `${found.name}, ${ordinalPlace(found.place)}` }],
            expected: wanted,
            itemId: found.id,
          }
        }
      }
    }
  },
  mend(verdict, context): Change[] {
    if (verdict.subject.about !== 'part') return []
    const { part } = verdict.subject
    const siblings = siblingGroups(context).find((group) => group.includes(part)) ?? []
    const before = siblings
      .slice(0, siblings.indexOf(part))
      .findLast(
        (sibling) =>
          foundOf(context, sibling) !== null &&
          !misplacedIn(context, siblings).has(sibling.instance),
      )
    const found = foundOf(context, part)
    if (!found) return []
    const after = before ? (foundOf(context, before)?.place ?? -1) : -1
    const at = after + 1 - (found.place <= after ? 1 : 0)
    return part.kind === 'module'
      ? [{ change: 'move-module', id: found.id, at }]
      : [{ change: 'move-item', id: found.id, module: found.module, at }]
  },
})

interface SiblingPlace {
  id: string
  name: string
  module: string | null
  /** Place among all its siblings, from 0. */
  place: number
}

/** What was found for a part in the place its siblings stand in; null when it is missing or stands elsewhere. */
const foundOf = (context: CheckContext, part: ExpectedPart): SiblingPlace | null => {
  if (part.kind === 'module') {
    const module = context.moduleFor(part)
    return module && isShown(module)
      ? {
          id: module.id,
          name: module.name,
          module: null,
          place: context.course.modules.indexOf(module),
        }
      : null
  }
  const there = context.itemFor(part)
  const parent = context.partAt(part.parent)
  if (
    !there ||
    !parent ||
    there.module === null ||
    context.moduleFor(parent)?.id !== there.module.id
  )
    return null
  return {
    id: there.item.id,
    name: there.item.name,
    module: there.module.id,
    place: itemsIn(there.module).indexOf(there.item),
  }
}

const siblingGroups = (context: CheckContext): ExpectedPart[][] => [
  context.expected.parts.filter((part) => part.kind === 'module'),
  ...context.parts
    .filter((part) => part.kind === 'module')
    .map((module) => module.items.filter((item) => item.kind !== 'module')),
]

const misplacedIn = (context: CheckContext, siblings: readonly ExpectedPart[]): Set<string> => {
  const standing = siblings
    .flatMap((part, rank) => {
      const found = isFree(context, part) ? null : foundOf(context, part)
      return found ? [{ part, rank, place: found.place }] : []
    })
    .sort((a, b) => a.place - b.place)
  return new Set(
    fewestMoves(standing.map(({ rank }) => rank)).flatMap((i) => standing[i]?.part.instance ?? []),
  )
}

const ordinalPlace = (place: number): string => {
  const n = place + 1
  const suffix =
    n % 100 >= 11 && n % 100 <= 13 ? 'th' : ({ 1: 'st', 2: 'nd', 3: 'rd' }[n % 10] ?? 'th')
  return `${n}${suffix}`
}
