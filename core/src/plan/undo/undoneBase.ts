import type { Base, BaseEntry, FieldBase } from '../base.ts'
import { sameValue } from '../mergeCase.ts'
import { inWantedOrder, withNew } from '../questionOrder.ts'
import type { BaseChange } from './undoRecord.ts'

/** A value that a deployment changed, taken back unless something changed it again since. */
const takenBack = <T>(before: T, after: T, present: T): T =>
  sameValue(present, after) ? before : present

/** What was sent of something, and what it is on the platform. */
interface Sent {
  sent: unknown
  id?: string
}
/** Whether the same was sent of it: what a platform made of it is read anew with every rollout. */
const sameSent = (one: Sent | undefined, other: Sent | undefined): boolean =>
  (one === undefined) === (other === undefined) &&
  one?.id === other?.id &&
  sameValue(one?.sent, other?.sent)

const none: ReadonlySet<string> = new Set()

/**
 * What was sent by name, each taken back by itself; what is undefined is not there.
 * @param back names of what stands as it was before, whatever was sent of it since
 */
const sentTakenBack = <T extends Sent>(
  before: Readonly<Record<string, T>>,
  after: Readonly<Record<string, T>>,
  present: Readonly<Record<string, T>>,
  back = none,
): Record<string, T> => {
  const names = new Set([...Object.keys(before), ...Object.keys(present)])
  return Object.fromEntries(
    [...names].flatMap((name) => {
      const [was, then, now] = [before[name], after[name], present[name]]
      const value = back.has(name) || (!sameSent(was, then) && sameSent(now, then)) ? was : now
      return value === undefined ? [] : [[name, value]]
    }),
  )
}

/** Names in an order, with those that only stand in another after the ones they follow there. */
export const inOrderOf = (before: readonly string[], present: readonly string[]): string[] => {
  const known = new Set(before)
  const following = new Map<string | null, string[]>()
  let last: string | null = null
  for (const name of present) {
    if (known.has(name)) last = name
    else following.set(last, [...(following.get(last) ?? []), name])
  }
  return [null, ...before].flatMap((name) => [
    ...(name === null ? [] : [name]),
    ...(following.get(name) ?? []),
  ])
}

/** An order that a deployment changed, taken back unless what it left was moved since; what is in one of both alone stands after what it follows there. */
const orderTakenBack = (
  before: readonly string[],
  after: readonly string[],
  present: readonly string[],
): string[] => {
  const inAfter = new Set(after)
  const inPresent = new Set(present)
  const isAsLeft = sameValue(
    present.filter((name) => inAfter.has(name)),
    after.filter((name) => inPresent.has(name)),
  )
  return isAsLeft ? inOrderOf(before, present) : inOrderOf(present, before)
}

/** The order of questions, taken back as it is on the platform: those that were asked before change places among themselves. */
const questionsTakenBack: typeof orderTakenBack = (before, after, present) => {
  const stillAsked = before.filter((key) => present.includes(key))
  const ordered = inWantedOrder(present, stillAsked, after)
  const sequence = before.map((key) => (present.includes(key) ? { id: key } : { key }))
  return withNew(ordered, sequence).map((one) => ('key' in one ? one.key : one.id))
}

/** What stands under keys in an order, each and the order taken back by itself. */
const listTakenBack = <T extends Sent & { key: string }>(
  before: readonly T[],
  after: readonly T[],
  present: readonly T[],
  order = orderTakenBack,
  back = none,
): T[] => {
  const byKey = (list: readonly T[]) => Object.fromEntries(list.map((one) => [one.key, one]))
  const keysOf = (list: readonly T[]) => list.map(({ key }) => key)
  const kept = sentTakenBack(byKey(before), byKey(after), byKey(present), back)
  return order(keysOf(before), keysOf(after), keysOf(present)).flatMap((key) => kept[key] ?? [])
}

const entryTakenBack = (
  before: BaseEntry,
  after: BaseEntry,
  present: BaseEntry,
  blocksBack: ReadonlySet<string>,
): BaseEntry => {
  if (sameValue(present, after)) return before
  const questionsOf = ({ questions }: BaseEntry) => questions ?? []
  const questions = listTakenBack(
    questionsOf(before),
    questionsOf(after),
    questionsOf(present),
    questionsTakenBack,
  )
  const taken = <K extends keyof BaseEntry>(field: K): BaseEntry[K] =>
    takenBack(before[field], after[field], present[field])
  return {
    instance: before.instance,
    platformId: taken('platformId'),
    template: taken('template'),
    part: taken('part'),
    repetition: taken('repetition'),
    number: taken('number'),
    kind: taken('kind'),
    parent: taken('parent'),
    format: taken('format'),
    fields: sentTakenBack(before.fields, after.fields, present.fields),
    blocks: listTakenBack(before.blocks, after.blocks, present.blocks, orderTakenBack, blocksBack),
    ...(questions.length > 0 ? { questions } : {}),
    page: taken('page'),
  }
}

/**
 * The base once a deployment is taken back: every value that it changed is what it was before, unless a later deployment
 * changed it again. Platform ids of what comes back are the caller's to set.
 * @param stays whether something that the deployment made stays in the course all the same, and so in the base
 * @param blocksBack by instance, keys of the blocks of a page that are what they were before
 */
export const undoneBase = (
  change: BaseChange,
  present: Base,
  stays: (entry: BaseEntry) => boolean,
  blocksBack: ReadonlyMap<string, ReadonlySet<string>> = new Map(),
): { course: Record<string, FieldBase>; parts: BaseEntry[] } => {
  const before = new Map(change.entries.map((entry) => [entry.instance, entry]))
  const after = new Map(change.after.map((entry) => [entry.instance, entry]))
  const is = new Map(present.parts.map((entry) => [entry.instance, entry]))
  const order = orderTakenBack(
    change.order.before,
    change.order.after,
    present.parts.map((entry) => entry.instance),
  )
  const parts = order.flatMap((instance): BaseEntry[] => {
    const was = before.get(instance)
    const then = after.get(instance)
    const now = is.get(instance)
    // Brought back by the deployment, and in use since: it stays known under its new id.
    if (was && then && now && was.platformId !== now.platformId && stays(now)) return [now]
    if (was && then && now)
      return [entryTakenBack(was, then, now, blocksBack.get(instance) ?? none)]
    if (was && !then) return [now ?? was]
    // Made by the deployment, or recorded by it as what stood there already; or made anew since.
    if (!was && then && now) return stays(now) || now.platformId !== then.platformId ? [now] : []
    // Left out of the base since, by a later deployment.
    if (was && then) return []
    return now ? [now] : []
  })
  return { course: sentTakenBack(change.course, change.courseAfter, present.course), parts }
}
