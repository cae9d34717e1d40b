import { datesMentioned } from '../calendar/index.ts'
import {
  everyCourseItem,
  everyModule,
  type Change,
  type Course,
  type CourseItem,
  type CourseModule,
} from '../course/index.ts'
import { everyExpected, type ExpectedCourse } from '../expand/index.ts'
import { analysePage, blockRegions, markedBlock } from '../page/index.ts'
import type { Base, BaseEntry } from './base.ts'
import type { Bodies } from './bodies.ts'
import type { CarryKind } from './carryKinds.ts'
import type { Consequence } from './consequence.ts'
import type { FieldStep } from './fate.ts'
import { mergeName } from './mergeName.ts'
import { isWorkedOut, type Plan, type PlanStep } from './plan.ts'
import { formatOfName } from './wantedFields.ts'

/** A course that another one is made from: as it stands, and what was deployed to it. */
export interface CarrySource {
  course: Course
  base: Base
  bodies: Bodies
  /** Its term: when it is the new course's own, dates come along. */
  term: { code: string; title: string }
}

const contactElements: ReadonlySet<string> = new Set([
  'office-hours',
  'instructor-contact',
  'welcome',
])
const kindOfOwn = (item: CourseItem, module: CourseModule | null): CarryKind => {
  if (/announce|notice|bulletin/i.test(`${module?.name ?? ''} ${item.name}`)) return 'announcements'
  return item.kind === 'page' || item.kind === 'file' || item.kind === 'heading'
    ? 'own-pages'
    : 'own-activities'
}

/**
 * A plan for a new course that brings along what its people wrote in an earlier one: answers to fill-ins, their own words in
 * names, items of their own, by kind. Nothing that Wickerframe did not deliver leaves a staff or hidden module, and no
 * file whose place is hidden (invariant 11). What speaks of the earlier term is told.
 * @param plan into the empty new course
 */
export const carryOver = (
  plan: Plan,
  expected: ExpectedCourse,
  source: CarrySource,
  kinds: ReadonlySet<CarryKind>,
): Plan => {
  if (!isWorkedOut(plan)) return plan
  const { course, base, bodies } = source
  const sameTerm = source.term.code === expected.facts.term.code
  const placeKey = (part: string, number: number | null) => `${part}@${number ?? ''}`
  const entryAt = new Map(base.parts.map((entry) => [placeKey(entry.part, entry.number), entry]))
  const parts = [...everyExpected(expected.parts), expected.home]
  const partAt = new Map(parts.map((part) => [part.instance, part]))
  const instanceAt = new Map(
    parts.map((part) => [placeKey(part.key, part.repetitionNumber), part.instance]),
  )
  const entryOfId = new Map(base.parts.map((entry) => [entry.platformId, entry]))
  const placed = everyCourseItem(course)
  const items = new Map(placed.map((one) => [one.item.id, one.item]))
  const creates = new Set(plan.creates)
  const told = new Map<Consequence['code'], string[]>()
  const tell = (code: Consequence['code'], where: string) =>
    void told.set(code, [...(told.get(code) ?? []), where])

  /** Where a source item's counterpart stands in the new course: an instance, an own item that comes along, or nowhere. */
  const own = new Map<string, string>()
  const counterpart = (id: string): string | null => {
    const entry = entryOfId.get(id)
    const instance = entry ? instanceAt.get(placeKey(entry.part, entry.number)) : undefined
    return instance !== undefined && creates.has(instance) ? instance : (own.get(id) ?? null)
  }
  const idOfUrl = new Map(
    placed.flatMap(({ item }) => (item.url === null ? [] : [[item.url, item.id] as const])),
  )
  /** HTML with links into the earlier course leading to their counterparts; without one they lose their target. */
  const relinked = (html: string): string =>
    html.replace(/(href|src)="([^"]+)"/g, (whole, attribute: string, url: string) => {
      const id = idOfUrl.get(url)
      if (id === undefined) return whole
      const there = counterpart(id)
      return there === null ? `${attribute}="#"` : `${attribute}="ref:${there}"`
    })
  const listen = (text: string, where: string) => {
    if (sameTerm) return
    if (datesMentioned(text).length > 0) tell('dates-in-prose', where)
    if (source.term.title !== '' && text.includes(source.term.title)) tell('old-term', where)
  }

  // Which of their own items come along is settled first, so that links to them find them.
  const comes = placed.filter(({ item, module }) => {
    if (entryOfId.has(item.id)) return false
    if (!kinds.has(kindOfOwn(item, module))) return false
    const moduleEntry = module ? entryOfId.get(module.id) : undefined
    const staff = moduleEntry
      ? partAt.get(instanceAt.get(placeKey(moduleEntry.part, moduleEntry.number)) ?? '')
          ?.audience !== 'students' &&
        instanceAt.has(placeKey(moduleEntry.part, moduleEntry.number))
      : false
    if (staff || module?.published === false || !item.published) {
      // Its name is nobody's to read elsewhere.
      tell(
        'left-behind',
        item.kind === 'file' ? 'a file in a hidden place' : 'an item in a hidden place',
      )
      return false
    }
    return true
  })
  for (const { item } of comes) own.set(item.id, `own-${item.id}`)

  const steps = new Map(plan.steps.map((step) => [step.instance, step]))
  const carried = new Map<string, { blocks: Set<string>; name: boolean }>()
  const note = (instance: string, field: FieldStep) => {
    const step = steps.get(instance)
    if (step)
      steps.set(instance, {
        ...step,
        reason: 'new, with what was written in the earlier course',
        fields: [...step.fields, field],
      })
  }
  const changes = plan.changes.map((change): Change => {
    if (change.change !== 'create-item' && change.change !== 'create-module') return change
    const part = partAt.get(change.clientId)
    const entry = part ? entryAt.get(placeKey(part.key, part.repetitionNumber)) : undefined
    if (!part || !entry) return change
    const marks = { blocks: new Set<string>(), name: false }
    carried.set(part.instance, marks)
    const named = kinds.has('topics')
      ? carriedName(entry, nameIn(course, entry.platformId), part)
      : null
    if (named !== null && named !== part.name) {
      marks.name = true
      note(part.instance, {
        field: 'name',
        does: 'change',
        base: null,
        present: part.name,
        wanted: part.name,
        result: named,
        decided: null,
        reason: 'the instructor’s own words come along',
      })
      listen(named, named)
    }
    const name = marks.name && named !== null ? named : change.fields.name
    if (change.change === 'create-module') return { ...change, fields: { ...change.fields, name } }
    const item = items.get(entry.platformId)
    let html = change.fields.html
    if (html !== undefined && item?.html) {
      const regions = blockRegions(
        item.html,
        entry.blocks.map((block) => ({ key: block.key, html: bodies.htmlOf(block.sent) ?? '' })),
      ).regions
      for (const block of part.blocks) {
        if (block.definition.kind !== 'fill-in') continue
        const kind: CarryKind =
          block.definition.element !== undefined && contactElements.has(block.definition.element)
            ? 'contact-cards'
            : 'answers'
        const region = regions.get(block.key)
        if (!kinds.has(kind) || !region || region.asLookedFor()) continue
        const inner = item.html.slice(region.inner.from, region.inner.to)
        const text = analysePage(inner)
          .paragraphs.map((one) => one.text)
          .join(' ')
        if (
          [block.definition.prompt, ...block.definition.earlierPrompts].some((prompt) =>
            text.replace(/\s/g, '').includes(prompt.replace(/\s/g, '')),
          )
        )
          continue
        const written = blockRegions(
          html,
          part.blocks.map((one) => ({ key: one.key, html: one.html })),
        ).regions.get(block.key)
        if (!written) continue
        html =
          html.slice(0, written.outer.from) +
          markedBlock(block.key, part.instance, relinked(inner)) +
          html.slice(written.outer.to)
        marks.blocks.add(block.key)
        note(part.instance, {
          field: `block:${block.key}`,
          does: 'change',
          base: null,
          present: block.html,
          wanted: block.html,
          result: relinked(inner),
          decided: null,
          reason: 'what the instructor filled in comes along',
        })
        listen(text, `${name}: ${text.slice(0, 80)}`)
      }
    }
    if (part.kind === 'tool-link' && !sameTerm) tell('attest-again', name)
    return {
      ...change,
      fields: { ...change.fields, name, ...(html === undefined ? {} : { html }) },
    }
  })

  const moduleAt = new Map<string, string | null>()
  for (const { item, module } of comes) {
    let into: string | null = null
    if (module) {
      const known = moduleAt.get(module.id)
      const entry = entryOfId.get(module.id)
      const instance = entry ? instanceAt.get(placeKey(entry.part, entry.number)) : undefined
      if (known !== undefined) into = known
      else if (instance !== undefined && creates.has(instance)) into = `ref:${instance}`
      else {
        changes.push({
          change: 'create-module',
          clientId: `own-${module.id}`,
          parent: null,
          at: null,
          fields: { name: module.name, published: module.published },
        })
        into = `ref:own-${module.id}`
      }
      moduleAt.set(module.id, into)
    }
    const text =
      item.html === null
        ? ''
        : analysePage(item.html)
            .paragraphs.map((one) => one.text)
            .join(' ')
    listen(`${item.name} ${text}`, item.name)
    if ((item.dueAt !== null || item.opensAt !== null || item.closesAt !== null) && !sameTerm)
      tell('dates-to-set', item.name)
    if (item.kind === 'tool-link' && !sameTerm) tell('attest-again', item.name)
    const dates = sameTerm
      ? { opensAt: item.opensAt, dueAt: item.dueAt, closesAt: item.closesAt }
      : {}
    changes.push({
      change: 'create-item',
      clientId: `own-${item.id}`,
      module: into,
      at: null,
      kind: item.kind,
      fields: {
        name: item.name,
        published: item.published,
        points: item.points,
        category: item.category,
        ...dates,
        ...(item.html === null ? {} : { html: relinked(item.html) }),
        ...(item.target === null ? {} : { target: item.target }),
        ...(item.work ? { work: item.work } : {}),
        ...(item.rubric ? { rubric: item.rubric } : {}),
      },
    })
    steps.set(`own-${item.id}`, {
      does: 'create',
      instance: `own-${item.id}`,
      part: 'own',
      kind: item.kind,
      name: item.name,
      into: module?.name ?? null,
      opensAt: null,
      dueAt: null,
      reason: 'their own, from the earlier course',
      fields: [],
    })
  }

  // What came along is theirs from the start: the base holds what the template wants, not what stands there.
  const next = {
    ...plan.next,
    parts: plan.next.parts.map((entry) => {
      const marks = carried.get(entry.instance)
      if (!marks || (marks.blocks.size === 0 && !marks.name)) return entry
      const name = entry.fields['name']
      return {
        ...entry,
        ...(marks.name && name
          ? {
              fields: { ...entry.fields, name: { sent: name.sent, echo: name.sent } },
              freshFields: entry.freshFields.filter((field) => field !== 'name'),
            }
          : {}),
        ...(marks.blocks.size > 0
          ? {
              freshPage: false,
              blocks: entry.blocks.map((block) =>
                marks.blocks.has(block.key) ? { ...block, fresh: false } : block,
              ),
            }
          : {}),
      }
    }),
  }
  const ordered: PlanStep[] = [...steps.values()]
  return {
    ...plan,
    steps: ordered,
    changes,
    next,
    additive: false,
    consequences: [
      ...plan.consequences,
      ...[...told].map(([code, all]) => ({
        code,
        count: all.length,
        example: all[0] ?? '',
        all: [...new Set(all)].slice(0, 50),
      })),
    ],
  }
}

const nameIn = (course: Course, id: string): string | null =>
  everyModule(course.modules).find((module) => module.id === id)?.name ??
  everyCourseItem(course).find(({ item }) => item.id === id)?.item.name ??
  null

const carriedName = (
  entry: BaseEntry,
  present: string | null,
  part: Parameters<typeof formatOfName>[0],
): string | null => {
  const sent = entry.fields['name']?.sent
  if (present === null || entry.format === null || typeof sent !== 'string' || present === sent)
    return null
  return mergeName({ format: entry.format, name: sent }, present, formatOfName(part), part.values)
}
