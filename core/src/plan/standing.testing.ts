import {
  applyChanges,
  everyCourseItem,
  everyModule,
  withRecordedIdentity,
  type Change,
  type Course,
  type CourseItem,
  type Facts,
} from '../course/index.ts'
import { expandCourse, knownRepetitions, type ExpectedCourse } from '../expand/index.ts'
import { emptyCourse, exampleFacts, exampleTemplate } from '../rules/example/exampleCourse.ts'
import type { Template } from '../template/index.ts'
import {
  beforeChanges,
  bodiesOfBase,
  bodiesOfRecord,
  carryOut,
  emptyBase,
  identityOf,
  isWorkedOut,
  keptBodies,
  planDeployment,
  planUndo,
  undoRecordOf,
  type Base,
  type KeptBodies,
  type PlanInput,
  type UndoRecord,
  type WorkedOutPlan,
} from './index.ts'

const keepsMarks = (html: string): string =>
  html.replaceAll('–', '&ndash;').replace(/<\/p>(?=<)/g, '</p>\n')
/** How the platform of a case writes HTML. Each comes to rest: what it wrote it writes again as it stands. */
export const platforms = {
  'keeps marks': keepsMarks,
  'strips marks': (html: string) =>
    keepsMarks(html.replace(/ data-wicker-(?:block|part)="[^"]*"/g, '')),
  /** An editor of its own: whatever it does not know goes, and all tags are written in its own way. */
  'writes anew': (html: string) =>
    html
      .replace(/ (?:data-[\w-]+|style)="[^"]*"/g, '')
      .replace(/<(p|li|h[1-6])>/g, '<$1 dir="ltr">')
      .replace(/<a (?!class)/g, '<a class="kp-link" ')
      .replace(/<(br|hr|img)((?:\s+[^\s<>/][^<>]*?)?)\s*\/?>/g, '<$1$2 />')
      .replace(/<(\/?)(?:b|strong)>/g, '<$1strong>')
      .replace(/<(\/?)(?:i|em)>/g, '<$1em>')
      .replace(/[–’“”é]/g, (character) => `&#${character.charCodeAt(0)};`)
      .replace(/<\/(p|li|h[1-6]|ul|ol|div)>\s*(?=<)/g, '</$1>\n  '),
} satisfies Record<string, (html: string) => string>
export type PlatformName = keyof typeof platforms
export const platformNames = Object.keys(platforms) as PlatformName[]

export type PlanMore = Omit<PlanInput, 'expected' | 'course' | 'base' | 'bodies' | 'onDate'>

/** What was carried out, what stood before, and how it is taken back. */
interface Carried {
  plan: WorkedOutPlan
  before: { course: Course; base: Base }
  record: UndoRecord
}

/** One course of a generated case, with everything a merge needs. */
export class Standing {
  course: Course = emptyCourse('c1', 'New course')
  base: Base = emptyBase()
  /** What is kept: of what went before, only what a base or an undo record names. */
  bodies: KeptBodies = keptBodies()
  readonly records: UndoRecord[] = []
  readonly hand: Parameters<typeof applyChanges>[2]
  #next = 0
  constructor(platform: PlatformName) {
    this.hand = {
      newId: (kind) => `${kind[0]}${++this.#next}`,
      urlOf: (id) => `/c/${id}`,
      urlOfFile: ({ name, content }) => `/c/files/${content}/${encodeURIComponent(name)}`,
      rewriteHtml: platforms[platform],
    }
  }
  expand(template: Template, facts: Facts): ExpectedCourse {
    const recorded = this.base.parts.flatMap((entry) =>
      entry.repetition !== null && entry.number !== null
        ? [{ part: entry.part, number: entry.number, id: entry.repetition }]
        : [],
    )
    const repetitions = [
      ...knownRepetitions(template, withRecordedIdentity(this.course, identityOf(this.base))),
      ...recorded,
    ]
    const result = expandCourse({ template, facts, mintFrom: 'c1', repetitions })
    if (!result.ok) throw new Error(JSON.stringify(result.problems))
    return result.value
  }
  plan(
    template: Template = exampleTemplate(),
    facts: Facts = exampleFacts(),
    more: PlanMore = {},
  ): WorkedOutPlan {
    const plan = planDeployment({
      expected: this.expand(template, facts),
      course: this.course,
      base: this.base,
      bodies: this.bodies,
      onDate: '2026-09-10',
      ...more,
    })
    if (!isWorkedOut(plan)) throw new Error(plan.reason)
    return plan
  }
  deploy(template?: Template, facts?: Facts, more?: PlanMore): Carried {
    return this.carry(this.plan(template, facts, more))
  }
  planUndo(record: UndoRecord): WorkedOutPlan {
    const plan = planUndo({ record, course: this.course, base: this.base, bodies: this.bodies })
    if (!isWorkedOut(plan)) throw new Error(plan.reason)
    return plan
  }
  undo(record: UndoRecord): Carried {
    return this.carry(this.planUndo(record))
  }
  /** Carries a plan out, and goes on from what is stored alone, as another process with every cache empty would. */
  carry(plan: WorkedOutPlan): Carried {
    const before = { course: this.course, base: this.base }
    const stood = beforeChanges(plan.changes, before.course, this.bodies)
    const done = carryOut(plan, this.course, this.base, this.hand, this.bodies)
    if (!done.ok)
      throw new Error(`${done.problems.message} ${JSON.stringify(plan.changes[done.problems.at])}`)
    Object.assign(this, done.value)
    const ids = Object.fromEntries(
      plan.creates.flatMap((instance) => [
        [instance, this.base.parts.find((entry) => entry.instance === instance)?.platformId ?? ''],
      ]),
    )
    const record = undoRecordOf(
      plan.changes,
      stood,
      this.course,
      ids,
      before.base,
      this.base,
      this.bodies,
    )
    this.records.push(record)
    const named = new Set([...bodiesOfBase(this.base), ...this.records.flatMap(bodiesOfRecord)])
    this.bodies = keptBodies(
      Object.fromEntries(Object.entries(this.bodies.all()).filter(([id]) => named.has(id))),
    )
    return { plan, before, record }
  }
  edit(changes: Change[]): void {
    const done = applyChanges(this.course, changes, this.hand)
    if (done.ok) this.course = done.value.course
  }
  /** The first item whose name begins so. */
  item(name: string): CourseItem {
    const found = everyCourseItem(this.course).find(({ item }) => item.name.startsWith(name))?.item
    if (!found) throw new Error(`no item ${name}`)
    return found
  }
  /** Writes every page anew; those that come out the same are left alone. */
  writePages(write: (html: string) => string): void {
    for (const { item } of everyCourseItem(this.course)) {
      const html = item.html === null ? null : write(item.html)
      if (html !== null && html !== item.html) this.write(item, html)
    }
  }
  write(item: CourseItem, html: string): void {
    this.edit([{ change: 'set-item', id: item.id, fields: { html } }])
  }
  handIn(item: CourseItem): void {
    this.course = structuredClone(this.course)
    const found = everyCourseItem(this.course).find((placed) => placed.item.id === item.id)?.item
    if (found) found.studentWork = true
  }
}

/** Names, places, settings and pages without ids and addresses: equal for courses that are alike. */
export const alike = (course: Course) => {
  const names = new Map(
    [...everyModule(course.modules), ...everyCourseItem(course).map(({ item }) => item)].map(
      ({ id, name }) => [id, name],
    ),
  )
  const page = (html: string | null) =>
    html
      ?.replace(/\/c\/(\w+)/g, (_, id: string) => `→${names.get(id) ?? 'nowhere'}`)
      .replace(/data-wicker-part="[^"]*"/g, '') ?? null
  const { id: _, revision: __, readAt: ___, homePage, ...rest } = course
  const json = JSON.stringify(
    { ...rest, home: names.get(homePage ?? '') ?? null },
    (field, value: unknown) =>
      field === 'id' || field === 'url' || field === 'recordedAs'
        ? undefined
        : field === 'html' || (field === 'text' && typeof value === 'string')
          ? page(value as string | null)
          : field === 'to' && typeof value === 'string' && value.startsWith('item:')
            ? // What leads to nothing leads nowhere.
              names.get(value.slice('item:'.length))
            : value,
  )
  return JSON.parse(json) as unknown
}
