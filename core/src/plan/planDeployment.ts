import { everyCourseItem, everyModule, isShell, type Change, type Course, type RecordedAs } from '../course/index.ts'
import { everyExpected, type ExpectedCourse, type ExpectedPart } from '../expand/index.ts'
import { renderPage } from '../page/index.ts'
import { WorkSettings, type Rubric } from '../template/index.ts'

/** What an earlier deployment put where: the base of this course, by part instance. */
export interface BaseEntry extends RecordedPart {
  platformId: string
}

export interface PlanInput {
  expected: ExpectedCourse
  course: Course
  base: readonly BaseEntry[]
  /** Which revisions of house texts are written, `YYYY-MM-DD`. */
  onDate: string
}

/** What would happen to one part, in words people read. */
export interface PlanStep {
  does: 'create' | 'keep' | 'set'
  instance: string
  kind: string
  name: string
  /** Name of the module it goes into, or null. */
  into: string | null
  opensAt: string | null
  dueAt: string | null
  reason: string
}

export type Plan =
  | { state: 'ready'; steps: PlanStep[]; changes: Change[]; creates: RecordedPart[] }
  | { state: 'nothing-to-do'; steps: PlanStep[] }
  /** Left out until somebody decides. */
  | { state: 'left-out'; reason: string }

/** Which instance a client id of the change set becomes, for the base. */
export interface RecordedPart extends RecordedAs {
  instance: string
}

/**
 * What a deployment of the expected course would do: everything into a shell; into a course deployed before only the
 * parts it never had. What an instructor removed stays removed, and nothing that is there is touched. Pure: the same
 * input gives the same plan, and a plan that was run gives an empty one.
 */
export const planDeployment = ({ expected, course, base, onDate }: PlanInput): Plan => {
  if (base.length === 0 && !isShell(course))
    return { state: 'left-out', reason: `the course already holds ${course.modules.length} modules that Wickerframe did not put there; bringing a template into a filled course is a decision of its own` }

  const placed = new Map(base.map((entry) => [entry.instance, entry.platformId]))
  const standing = new Set([...everyModule(course.modules).map((module) => module.id), ...everyCourseItem(course).map(({ item }) => item.id)])
  const steps: PlanStep[] = []
  const changes: Change[] = []
  const creates: RecordedPart[] = []
  const leftForGone = new Set<string>()

  const refOf = (instance: string): string => placed.get(instance) ?? `ref:${instance}`
  /** Links to parts that already stand speak of the platform's id; links to what is not there any more lose their target. */
  const linked = (html: string): string =>
    html.replace(/href="ref:([^"]+)"/g, (whole, instance: string) => {
      const id = placed.get(instance)
      if (id !== undefined) return standing.has(id) ? `href="item:${id}"` : 'href="#"'
      return wantedInstances.has(instance) ? whole : 'href="#"'
    })
  const wantedInstances = new Set([expected.home, ...everyExpected(expected.parts).filter((part) => !(part.inBreak && part.kind !== 'module'))].map((part) => part.instance))

  const recordOf = (part: ExpectedPart): RecordedPart => ({ instance: part.instance, part: part.key, repetition: part.repetition, number: part.repetitionNumber })
  const step = (does: PlanStep['does'], part: ExpectedPart, into: string | null, reason: string) => {
    steps.push({ does, instance: part.instance, kind: part.kind, name: part.name, into, opensAt: part.opensAt, dueAt: part.dueAt, reason })
  }
  const keep = (part: ExpectedPart, into: string | null): boolean => {
    const id = placed.get(part.instance)
    if (id === undefined) return false
    step('keep', part, into, standing.has(id) ? 'deployed before; left as it is' : 'deployed before and removed since; stays removed')
    if (!standing.has(id)) leftForGone.add(part.instance)
    return true
  }

  const createItem = (part: ExpectedPart, module: ExpectedPart | null, at: number | null) => {
    if (keep(part, module?.name ?? null)) return
    if (module && leftForGone.has(module.instance)) return
    const { settings, kind } = part.definition
    if (kind === 'module') return
    changes.push({
      change: 'create-item',
      clientId: part.instance,
      module: module ? refOf(module.instance) : null,
      at,
      kind,
      fields: {
        name: part.name,
        published: part.audience === 'staff' ? false : (settings.published ?? true),
        opensAt: part.opensAt,
        dueAt: part.dueAt,
        closesAt: part.closesAt,
        points: settings.points ?? null,
        category: settings.category ?? null,
        ...(part.blocks.length > 0 || kind === 'page' ? { html: linked(renderPage(part, onDate)) } : {}),
        ...workOf(part, expected),
        ...('url' in part.definition && part.definition.url ? { target: part.definition.url } : {}),
      },
    })
    creates.push(recordOf(part))
    step('create', part, module?.name ?? null, part.audience === 'staff' ? 'new, hidden: it is for staff' : 'new')
  }
  const createModule = (part: ExpectedPart, parent: ExpectedPart | null, at: number | null) => {
    if (!keep(part, parent?.name ?? null)) {
      changes.push({
        change: 'create-module',
        clientId: part.instance,
        parent: parent ? refOf(parent.instance) : null,
        at,
        fields: { name: part.name, published: part.audience === 'staff' ? false : (part.definition.settings.published ?? true), opensAt: part.opensAt },
      })
      creates.push(recordOf(part))
      step('create', part, parent?.name ?? null, 'new')
    }
    if (leftForGone.has(part.instance)) return
    const isNew = !placed.has(part.instance)
    part.items.forEach((inner, index) => {
      if (inner.inBreak) return
      if (inner.kind === 'module') createModule(inner, part, null)
      else createItem(inner, part, isNew ? null : index)
    })
  }

  const first = base.length === 0
  if (first) {
    changes.push({ change: 'set-course', name: expected.name, label: expected.label, timeZone: expected.facts.term.timeZone, ...expected.window, ...courseWide(expected) })
    steps.push({ does: 'set', instance: 'course', kind: 'course', name: expected.name, into: null, opensAt: null, dueAt: null, reason: `named ${expected.name}, label ${expected.label}, in the time of ${expected.facts.term.timeZone}${expected.window ? ', open for as long as the template says' : ''}` })
    if (expected.template.navigation.length > 0)
      changes.push({ change: 'set-navigation', navigation: expected.template.navigation.map(({ label, hidden }) => ({ label, hidden })) })
  }
  expected.parts.forEach((part, index) => {
    const at = first ? null : index
    if (part.kind === 'module') createModule(part, null, at)
    else createItem(part, null, null)
  })
  const homeIsNew = !placed.has(expected.home.instance)
  createItem(expected.home, null, null)
  if (homeIsNew) changes.push({ change: 'set-home', item: refOf(expected.home.instance) })

  return changes.length === 0 ? { state: 'nothing-to-do', steps } : { state: 'ready', steps, changes, creates }
}

/** How an item's work is handed in and judged, as far as the template says. */
const workOf = (part: ExpectedPart, expected: ExpectedCourse): { work?: WorkSettings; rubric?: Rubric } => {
  const { settings } = part.definition
  const said = Object.entries(settings).filter(([field]) => Object.hasOwn(WorkSettings.shape, field))
  const rubric = settings.rubric === undefined ? undefined : expected.template.rubrics.find((one) => one.key === settings.rubric)
  return { ...(said.length > 0 ? { work: Object.fromEntries(said) } : {}), ...(rubric ? { rubric } : {}) }
}

/** Settings and grade scheme of the whole course, as far as the template says. */
const courseWide = ({ template: { settings, grading } }: ExpectedCourse) => ({ ...(Object.keys(settings).length > 0 ? { settings } : {}), ...(grading.categories.length > 0 ? { grading } : {}) })

/** The base after a plan was applied: what was there, and what the platform made, by the ids it gave. */
export const baseAfter = (base: readonly BaseEntry[], creates: readonly RecordedPart[], ids: Readonly<Record<string, string>>): BaseEntry[] => [
  ...base,
  ...creates.flatMap((part) => {
    const platformId = ids[part.instance]
    return platformId === undefined ? [] : [{ ...part, platformId }]
  }),
]

/** Recorded identity of a course's base, by the platform's ids. */
export const identityOf = (base: readonly BaseEntry[]): Map<string, RecordedAs> =>
  new Map(base.map((entry) => [entry.platformId, { part: entry.part, repetition: entry.repetition, number: entry.number }]))
