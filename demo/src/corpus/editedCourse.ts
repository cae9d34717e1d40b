import {
  type Course,
  type CourseItem,
  type CourseModule,
  everyExpected,
  everyModule,
  expandCourse,
  type ExpectedPart,
  type Facts,
  isShown,
  itemsIn,
  type Template,
} from '@wickerframe/core'
import { makeDeployedCourse } from '../makeCourse.ts'

/** How far an instructor went. */
export const editLevels = ['light', 'medium', 'heavy'] as const
export type EditLevel = (typeof editLevels)[number]

/** A place of the template in words that outlive identity: the part's key, and its week or unit. */
export const placeKey = (part: ExpectedPart, parent: ExpectedPart | null): string => {
  const unit = part.kind === 'module' ? part.values.unit : parent?.values.unit
  const inUnit =
    (part.kind === 'module' ? part.weeks.length : (parent?.weeks.length ?? 0)) > 1 &&
    unit !== undefined
  if (!inUnit) return `${part.key}#${part.week?.number ?? ''}`
  const perWeek =
    part.kind !== 'module' &&
    part.definition.kind !== 'module' &&
    part.definition.inGroup === 'per-week'
  return perWeek ? `${part.key}#${part.week?.number ?? ''}` : `${part.key}#unit ${String(unit)}`
}

/** What is true of an edited course, written by the edits themselves. */
export interface Truth {
  /** For each place of the template that has something: the ids that are right answers. */
  pairs: Map<string, Set<string>>
  /** Departures that a reader would tell: `rule place` or `rule id` for what no part expects. */
  findings: Set<string>
  /** Departures of which a reader may say either. */
  either: Set<string>
  /** Departures that say the same as another, of which one is told. */
  sameAs: Map<string, string>
}

/**
 * A course in the hands of an instructor who edits it, and the truth beside it. Edits change both at once; nothing of
 * the truth is asked from the check.
 */
export class EditedCourse {
  readonly course: Course
  readonly template: Template
  readonly facts: Facts
  readonly truth: Truth = {
    pairs: new Map(),
    findings: new Set(),
    either: new Set(),
    sameAs: new Map(),
  }
  readonly #placeOf = new Map<string, string>()
  readonly #parts = new Map<string, ExpectedPart>()
  readonly #removedUrls = new Set<string>()
  readonly #touched = new Set<string>()
  #next = 0

  constructor(id: string, template: Template, facts: Facts, seed: number) {
    const { course } = makeDeployedCourse(id, template, facts, 'perfect', seed)
    this.course = structuredClone(course)
    this.template = template
    this.facts = facts
    const expansion = expandCourse({ template, facts, mintFrom: id })
    if (!expansion.ok) throw new Error(JSON.stringify(expansion.problems))
    const parts = [expansion.value.home, ...everyExpected(expansion.value.parts)]
    const byInstance = new Map(parts.map((part) => [part.instance, part]))
    for (const part of parts)
      this.#parts.set(placeKey(part, byInstance.get(part.parent ?? '') ?? null), part)
    this.#fillIn(parts)
    for (const found of [...this.modules, ...this.items]) {
      const as = found.recordedAs
      const part = as
        ? byInstance.get(as.repetition === null ? as.part : `${as.part}@${as.repetition}`)
        : undefined
      if (part) this.pair(placeKey(part, byInstance.get(part.parent ?? '') ?? null), found.id)
    }
  }

  /** Answers what the story of the demo leaves open, so that nothing but the edits departs. */
  #fillIn(parts: readonly ExpectedPart[]): void {
    const prompts = new Map(
      parts.flatMap((part) =>
        part.blocks.flatMap((block) =>
          block.definition.kind === 'fill-in'
            ? [[block.definition.prompt, block.definition.type] as const]
            : [],
        ),
      ),
    )
    const asked = parts.flatMap(({ blocks }) =>
      blocks.flatMap(({ definition, asks }) => (definition.kind === 'schedule' ? asks : [])),
    )
    for (const item of this.items)
      for (const piece of asked)
        item.html = item.html?.replace(piece, '<p>The chart room, then the east slip</p>') ?? null
    for (const item of this.items)
      for (const [prompt, type] of prompts)
        if (item.html?.includes(`<p>${prompt}</p>`))
          item.html = item.html.replace(
            `<p>${prompt}</p>`,
            type === 'list'
              ? '<ul><li>How much time have you?</li><li>Which tools?</li><li>What have you done before?</li></ul>'
              : '<p>What we settled together in class, written down here for whoever missed it, with the reasons and the page to read it up in.</p>',
          )
  }

  get modules(): CourseModule[] {
    return everyModule(this.course.modules)
  }
  get items(): CourseItem[] {
    return [...this.modules.flatMap((module) => itemsIn(module)), ...this.course.stray]
  }
  /** Items that stand for a part in a week. */
  get weekItems(): { item: CourseItem; module: CourseModule; place: string; part: ExpectedPart }[] {
    return this.modules.flatMap((module) =>
      itemsIn(module).flatMap((item) => {
        const place = this.placeOf(item.id)
        const part = place === null ? undefined : this.#parts.get(place)
        return place !== null && part && part.week !== null && !part.inBreak
          ? [{ item, module, place, part }]
          : []
      }),
    )
  }
  get weekModules(): { module: CourseModule; place: string; part: ExpectedPart; week: number }[] {
    return this.course.modules.flatMap((module) => {
      const place = this.placeOf(module.id)
      const part = place === null ? undefined : this.#parts.get(place)
      return place !== null && part?.week && !part.inBreak
        ? [{ module, place, part, week: part.week.number }]
        : []
    })
  }

  placeOf(id: string): string | null {
    return this.#placeOf.get(id) ?? null
  }
  partAt(place: string): ExpectedPart | null {
    return this.#parts.get(place) ?? null
  }
  newId(): string {
    return `own-${this.course.id}-${++this.#next}`
  }
  pair(place: string, id: string): void {
    this.#placeOf.set(id, place)
    this.truth.pairs.set(place, (this.truth.pairs.get(place) ?? new Set()).add(id))
  }
  /** Whether more than one place of the template stands in a module. */
  holdsSeveral(id: string): boolean {
    return [...this.truth.pairs.values()].filter((ids) => ids.has(id)).length > 1
  }
  unpair(id: string): void {
    const place = this.placeOf(id)
    if (place === null) return
    this.#placeOf.delete(id)
    const ids = this.truth.pairs.get(place)
    ids?.delete(id)
    if (ids?.size === 0) this.truth.pairs.delete(place)
  }
  tell(rule: string, at: string): void {
    this.truth.findings.add(`${rule} ${at}`)
  }
  isTold(rule: string, at: string): boolean {
    return this.truth.findings.has(`${rule} ${at}`)
  }
  either(rule: string, at: string): void {
    this.truth.either.add(`${rule} ${at}`)
  }
  /** Takes an item out of the course; links to it lead nowhere from then on. */
  remove(item: CourseItem): void {
    for (const module of this.modules)
      module.children = module.children.filter((child) => child !== item)
    this.course.stray = this.course.stray.filter((stray) => stray !== item)
    if (item.url) this.#removedUrls.add(item.url)
    this.unpair(item.id)
    for (const set of [this.truth.findings, this.truth.either])
      for (const told of set) if (told.endsWith(` ${item.id}`)) set.delete(told)
  }

  /** Takes a module out of the course, and what is in it; links to it lead nowhere from then on. */
  removeModule(module: CourseModule): void {
    this.course.modules = this.course.modules.filter((other) => other !== module)
    if (module.url) this.#removedUrls.add(module.url)
  }
  /** Says that two places stand in one module now: it is told of the second that it has none of its own. */
  merged(first: string, second: string, found: string): void {
    for (const set of [this.truth.findings, this.truth.either])
      for (const told of set) if (told.endsWith(` ${second}`)) set.delete(told)
    this.truth.pairs.delete(second)
    this.truth.pairs.set(second, new Set([found]))
    this.truth.sameAs.set(`module-missing ${first}`, `module-missing ${second}`)
    this.tell('module-missing', second)
  }
  /** The places of what a module of the template holds. */
  placesIn(place: string): string[] {
    const module = this.partAt(place)
    return module?.items.map((item) => placeKey(item, module)) ?? []
  }
  /** Notes that an edit has been here, so that each place has one thing wrong at most. */
  touch(place: string): void {
    this.#touched.add(place)
  }
  isTouched(place: string): boolean {
    return this.#touched.has(place)
  }
  /** The words by which the answers in a place are told from those in another. */
  signature(place: string): string {
    return `said of ${place.replaceAll('#', ' ')}`
  }

  /** Whether what stands for a place was removed in the course of the edits. */
  forget(place: string): void {
    for (const set of [this.truth.findings, this.truth.either])
      for (const told of set) if (told.endsWith(` ${place}`)) set.delete(told)
  }

  /** What follows from all edits together: links to what is gone, and to what nobody can open. */
  close(): this {
    const hidden = new Set(
      this.modules.flatMap((module) =>
        itemsIn(module)
          .filter((item) => !isShown(item) || !isShown(module))
          .flatMap((item) => item.url ?? []),
      ),
    )
    for (const module of [...this.modules, null]) {
      for (const item of module ? itemsIn(module) : this.course.stray) {
        const place = this.placeOf(item.id) ?? item.id
        const html = item.html ?? ''
        const part = this.partAt(place)
        if (part?.audience === 'staff') continue
        const links = (url: string): boolean => html.includes(`"${url}"`)
        if ([...this.#removedUrls].some(links)) {
          this.tell('link-dead', place)
          this.either('work-list-complete', place)
        }
        if ([...hidden].some(links)) this.either('link-to-hidden-part', place)
      }
    }
    return this
  }
}
