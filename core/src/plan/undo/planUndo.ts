import {
  everyCourseItem,
  touchesWork,
  type Change,
  type Course,
  type CourseItem,
} from '../../course/index.ts'
import type { Base, BaseEntry } from '../base.ts'
import { bodiesOfBase, bodyOf, missingBodies, type Bodies } from '../bodies.ts'
import { sameValue, type FieldStep } from '../mergeCase.ts'
import type { NextBase } from '../nextBase.ts'
import { listAt, movedBetween, placeAmong, placesOf } from '../places.ts'
import { unusableWithout, type Plan, type PlanStep } from '../plan.ts'
import { unchangedEntry } from '../planContext.ts'
import { shortenedPages } from '../shortened.ts'
import { freshened } from './freshened.ts'
import { courseValue, partStatesOf, type PartState } from './standing.ts'
import { undoneBase } from './undoneBase.ts'
import { undonePage } from './undonePage.ts'
import { bodiesOfRecord, type UndoRecord } from './undoRecord.ts'

export interface UndoInput {
  /** What the deployment did that is taken back. */
  record: UndoRecord
  course: Course
  base: Base
  bodies: Bodies
}

/**
 * Takes a deployment back, as a merge: its echo is the base, the state before it is wanted, and what was edited since is
 * kept and told. Later deployments count as edits. What it made stays once somebody has put something in it or has work in
 * it; what it removed comes back under a new id, and links to it lead there.
 */
export const planUndo = ({ record, course, base, bodies }: UndoInput): Plan => {
  const lacking = unusableWithout(
    missingBodies([...new Set([...bodiesOfRecord(record), ...bodiesOfBase(base)])], bodies),
  )
  if (lacking) return lacking
  const now = partStatesOf(course, bodies)
  const items = new Map<string, CourseItem>(
    everyCourseItem(course).map(({ item }) => [item.id, item]),
  )
  const places = placesOf(course)
  const steps: PlanStep[] = []
  const changes: Change[] = []
  const before = new Map(record.base.entries.map((entry) => [entry.instance, entry]))
  const afterwards = new Map(record.base.after.map((entry) => [entry.instance, entry]))
  const entries = new Map(base.parts.map((entry) => [entry.instance, entry]))
  const remade = new Map<string, string>()
  const removed = new Set<string>()
  /** Pages as they are written, by platform id, before their links lead elsewhere. */
  const pages = new Map<string, string>()
  const nameOf = (id: string | null): string | null =>
    id === null ? null : String(now.get(id)?.fields['name'] ?? '') || null
  const tell = (
    does: PlanStep['does'],
    instance: string,
    standing: PartState,
    name: unknown,
    reason: string,
    fields: FieldStep[] = [],
    because?: PlanStep['because'],
  ) =>
    steps.push({
      does,
      instance,
      part: entries.get(instance)?.part ?? before.get(instance)?.part ?? instance,
      kind: standing.kind,
      name: String(name),
      into: nameOf(standing.parent),
      ...(because ? { because } : {}),
      opensAt: null,
      dueAt: null,
      reason,
      fields,
    })
  const pageOf = ({ html }: PartState): string | null =>
    html === null ? null : bodyOf(bodies, html)
  const idNow = (id: string | null): string | null =>
    id === null ? null : remade.has(id) ? `ref:${remade.get(id)}` : id
  const standsNow = (id: string | null): boolean =>
    id === null || remade.has(id) || (now.has(id) && !removed.has(id))
  const orderOf = (kind: PartState['kind'], parent: string | null): readonly string[] =>
    record.lists.find((list) => list.of === listAt(kind, parent).of && list.parent === parent)
      ?.before ?? []
  const listOf = (kind: PartState['kind'], parent: string | null): string[] =>
    places.idsIn(listAt(kind, parent))
  /** Where something stood before, among what stands there now. */
  const placeOf = (id: string, kind: PartState['kind'], parent: string | null): number => {
    const list = listOf(kind, idNow(parent))
    return (
      placeAmong(
        list,
        orderOf(kind, parent).map((one) => idNow(one) ?? one),
        idNow(id) ?? id,
      ) ?? list.length
    )
  }
  // What it removed comes back first, modules before what stood in them, in the order in which they stood.
  const lost = record.touched.filter((one) => one.before && !one.after)
  for (const { id, instance, before: was } of [...lost].sort(
    (a, b) => Number(b.before?.kind === 'module') - Number(a.before?.kind === 'module'),
  )) {
    if (!was) continue
    if (!standsNow(was.parent)) {
      tell(
        'keep',
        instance,
        was,
        was.fields['name'],
        'the module it stood in is gone, so it cannot come back',
      )
      continue
    }
    const parent = idNow(was.parent)
    const at = placeOf(id, was.kind, was.parent)
    listOf(was.kind, parent).splice(at, 0, `ref:${instance}`)
    remade.set(id, instance)
    const fields = Object.fromEntries(
      Object.entries(was.fields).filter(
        ([field, value]) =>
          value !== null ||
          (field !== 'target' && field !== 'work' && field !== 'rubric' && field !== 'carried'),
      ),
    )
    if (was.kind === 'module')
      changes.push({
        change: 'create-module',
        clientId: instance,
        parent,
        at,
        fields: fields as { name: string },
      })
    else {
      const html = was.html === null ? undefined : bodyOf(bodies, was.html)
      if (html !== undefined) pages.set(id, html)
      changes.push({
        change: 'create-item',
        clientId: instance,
        module: parent,
        at,
        kind: was.kind,
        fields: { ...(fields as { name: string }), ...(html === undefined ? {} : { html }) },
      })
    }
    tell('create', instance, was, was.fields['name'], 'was removed by the rollout; comes back')
  }

  for (const { id, instance, before: was, after } of record.touched) {
    const is = now.get(id)
    if (!was || !after) continue
    if (!is) {
      tell('keep', instance, after, after.fields['name'], 'was removed since; stays removed')
      continue
    }
    const told: FieldStep[] = []
    const write: Record<string, unknown> = {}
    for (const [field, value] of Object.entries(was.fields)) {
      if (sameValue(value, after.fields[field])) continue
      const present = is.fields[field]
      const hasWork = touchesWork(field) && (items.get(id)?.studentWork ?? false)
      const untouched = sameValue(present, after.fields[field]) && !hasWork
      if (untouched) write[field] = value
      if (sameValue(present, value)) continue
      told.push({
        field,
        does: untouched ? 'change' : hasWork ? 'leave' : 'keep',
        base: after.fields[field],
        present,
        wanted: value,
        result: untouched ? value : present,
        decided: null,
        reason: untouched
          ? 'as it was before the rollout'
          : hasWork
            ? 'students have work in it; it is left alone'
            : 'was edited since; stays',
        ...(hasWork && !untouched ? { because: 'student-work' as const } : {}),
      })
    }
    const page =
      was.html === after.html
        ? null
        : undonePage(
            { was: pageOf(was), after: pageOf(after), is: pageOf(is) },
            before.get(instance)?.blocks ?? null,
            afterwards.get(instance)?.blocks ?? null,
            bodies,
          )
    if (page) told.push(...page.steps)
    if (page?.html !== null && page !== null) pages.set(id, page.html)
    if (Object.keys(write).length > 0 || (page?.html ?? null) !== null)
      changes.push(
        is.kind === 'module'
          ? { change: 'set-module', id, fields: write }
          : {
              change: 'set-item',
              id,
              fields: {
                ...write,
                ...(page?.html === null || page === null ? {} : { html: page.html }),
              },
            },
      )
    if (was.parent !== after.parent) {
      const untouched = is.parent === after.parent && standsNow(was.parent)
      if (untouched) {
        const from = listOf(is.kind, is.parent)
        from.splice(from.indexOf(id), 1)
        const at = placeOf(id, is.kind, was.parent)
        listOf(is.kind, idNow(was.parent)).splice(at, 0, id)
        changes.push(
          is.kind === 'module'
            ? { change: 'move-module', id, at }
            : { change: 'move-item', id, module: idNow(was.parent), at },
        )
      }
      told.push({
        field: 'place',
        does: untouched ? 'change' : 'keep',
        base: nameOf(after.parent),
        present: nameOf(is.parent),
        wanted: nameOf(was.parent),
        result: nameOf(untouched ? was.parent : is.parent),
        decided: null,
        reason: untouched ? 'back to where it stood' : 'was moved since; stays',
      })
    }
    if (told.length > 0)
      tell(
        told.some((one) => one.does === 'change') ? 'change' : 'keep',
        instance,
        is,
        is.fields['name'],
        told.some((one) => one.does !== 'change')
          ? 'taken back but for what was edited since'
          : 'taken back',
        told,
      )
  }

  const madeHere = new Set(
    record.touched.flatMap((one) => (!one.before && one.after ? [one.id] : [])),
  )
  // What it made goes, items before the modules they stand in, unless somebody has used it.
  for (const { id, instance, before: was, after } of [...record.touched]
    .reverse()
    .sort((a, b) => Number(a.after?.kind === 'module') - Number(b.after?.kind === 'module'))) {
    const is = now.get(id)
    if (was || !after) continue
    if (!is) continue
    const inIt = is.kind === 'module' ? places.idsIn(listAt('', id)) : []
    const untouched = sameValue(is.fields, after.fields) && is.html === after.html
    if (items.get(id)?.studentWork)
      tell(
        'keep',
        instance,
        is,
        is.fields['name'],
        'students have work in it; it stays',
        [],
        'student-work',
      )
    else if (!untouched) tell('keep', instance, is, is.fields['name'], 'was edited since; it stays')
    else if (inIt.length > 0)
      tell('keep', instance, is, is.fields['name'], 'something stands in it; it stays')
    else {
      const list = listOf(is.kind, is.parent)
      list.splice(list.indexOf(id), 1)
      removed.add(id)
      changes.push({ change: is.kind === 'module' ? 'remove-module' : 'remove-item', id })
      tell('remove', instance, is, is.fields['name'], 'was made by the rollout; goes again')
    }
  }
  // Orders go back, but for what people moved since.
  const modules = new Set(
    record.touched.flatMap((one) => (one.before?.kind === 'module' ? [idNow(one.id)] : [])),
  )
  const isModule = (id: string): boolean => now.get(id)?.kind === 'module' || modules.has(id)
  for (const { of, parent, before: was, after } of record.lists) {
    if (!standsNow(parent)) continue
    const list = places.idsIn({ of, parent: idNow(parent) })
    const movedSince =
      parent === null || now.has(parent)
        ? movedBetween(after, placesOf(course).idsIn({ of, parent }))
        : new Set<string>()
    const wanted = was.filter((id) => !movedSince.has(id)).map((id) => idNow(id) ?? id)
    const present = list.filter((id) => wanted.includes(id))
    const toMove = movedBetween(present, wanted)
    for (const id of wanted.filter((one) => toMove.has(one))) {
      list.splice(list.indexOf(id), 1)
      const fixed = wanted.filter((one) => one === id || !toMove.has(one))
      const at = placeAmong(list, fixed, id) ?? list.length
      toMove.delete(id)
      list.splice(at, 0, id)
      changes.push(
        isModule(id)
          ? { change: 'move-module', id, at }
          : { change: 'move-item', id, module: idNow(parent), at },
      )
    }
  }
  const ofCourse: FieldStep[] = []
  const set: Record<string, unknown> = {}
  for (const [field, { before: was, after }] of Object.entries(record.course)) {
    const present = courseValue(course, field)
    const untouched = sameValue(present, after)
    const goesHome = field === 'homePage'
    if (untouched && field === 'navigation')
      changes.push({
        change: 'set-navigation',
        navigation: was as { label: string; hidden: boolean }[],
      })
    else if (untouched && goesHome) {
      if (typeof was === 'string' && standsNow(was))
        changes.push({ change: 'set-home', item: idNow(was) ?? was })
    } else if (untouched) set[field] = was
    ofCourse.push({
      field,
      does: untouched ? 'change' : 'keep',
      base: after,
      present,
      wanted: was,
      result: untouched ? was : present,
      decided: null,
      reason: untouched ? 'as it was before the rollout' : 'was edited since; stays',
    })
  }
  if (Object.keys(set).length > 0) changes.push({ change: 'set-course', ...set })
  if (ofCourse.length > 0)
    steps.push({
      does: ofCourse.some((one) => one.does === 'change') ? 'set' : 'keep',
      instance: 'course',
      part: 'course',
      kind: 'course',
      name: course.name,
      into: null,
      opensAt: null,
      dueAt: null,
      reason: 'the course itself',
      fields: ofCourse,
    })
  const led = repointed(changes, record, items, remade, removed, pages)
  const staysMade = ({ platformId }: BaseEntry): boolean =>
    now.has(platformId) && !removed.has(platformId) && madeHere.has(platformId)
  const { course: courseBase, parts } = undoneBase(record.base, base, staysMade)
  const next: NextBase = {
    course: courseBase,
    freshCourseFields: [],
    parts: parts.map((entry) => {
      const html = pages.get(entry.platformId)
      return {
        ...unchangedEntry(entry),
        ...(html === undefined ? {} : freshened(entry, html, bodies)),
        platformId: remade.has(entry.platformId) ? null : entry.platformId,
      }
    }),
  }
  return {
    // Even where everything was edited since, the bases and the version go back.
    state: 'ready',
    steps,
    unchanged: 0,
    changes: led,
    undecided: 0,
    additive: false,
    consequences: shortenedPages(led, course, base, bodies),
    creates: [...remade.values()],
    next,
  }
}

/** The changes, and pages that lead to what comes back under a new id: their links lead there. What is written so is noted among the pages. */
const repointed = (
  changes: readonly Change[],
  record: UndoRecord,
  items: ReadonlyMap<string, CourseItem>,
  remade: ReadonlyMap<string, string>,
  removed: ReadonlySet<string>,
  pages: Map<string, string>,
): Change[] => {
  const addresses = record.touched.flatMap((one) =>
    one.before?.url && remade.has(one.id)
      ? [{ from: `href="${one.before.url}"`, to: `href="ref:${remade.get(one.id)}"` }]
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
