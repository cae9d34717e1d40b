import { everyCourseItem, everyModule, isShell, type Change, type Course, type CourseItem, type CourseModule } from '../course/index.ts'
import { everyExpected, type ExpectedCourse, type ExpectedPart } from '../expand/index.ts'
import { blockHtmlOn, markedBlock } from '../page/index.ts'
import type { BaseEntry, Base, Bodies, FieldBase } from './base.ts'
import type { NextBase, NextBlock, NextEntry } from './nextBase.ts'
import { consequencesOf, type Consequence } from './consequences.ts'
import { decisionFor, fateOf, noDecisions, sameValue, type Decision, type Decisions, type FieldStep } from './fate.ts'
import { keptRef, withLinks } from './links.ts'
import { mergeName } from './mergeName.ts'
import { mergePage, type WantedBlock } from './mergePage.ts'
import { movedBetween, placeAmong, placesOf } from './places.ts'
import { formatOfName, gathered, presentField, touchesWork, wantedCourseFields, wantedFields, type Fields } from './wantedFields.ts'

/** Which parts, and which single blocks of their pages, a plan is about. */
export interface Selection {
  /** Part keys; a module's key means everything in it. `course`: the fields of the course itself. */
  parts: readonly string[]
  /** Blocks as `PART/BLOCK`. */
  blocks: readonly string[]
}

export interface PlanInput {
  expected: ExpectedCourse
  course: Course
  base: Base
  bodies: Bodies
  /** Which revisions of house texts are written, `YYYY-MM-DD`. */
  onDate: string
  /** Only these; everything else stays as it was. */
  only?: Selection | null
  /** Keys of parts that are left as they are, with everything in them. */
  except?: readonly string[]
  /** What instructors may have removed or altered and is to be put back. */
  restore?: { fixedText?: boolean; missingParts?: boolean }
  decisions?: Decisions
  /** For a course with content of its own: which expected part is which item or module there. What has none is added. */
  adopt?: ReadonlyMap<string, string>
}

/** What would happen to one part, in words people read. */
export interface PlanStep {
  does: 'create' | 'change' | 'move' | 'adopt' | 'keep' | 'remove' | 'conflict' | 'set'
  instance: string
  part: string
  kind: string
  name: string
  /** Name of the module it goes into, or null. */
  into: string | null
  opensAt: string | null
  dueAt: string | null
  reason: string
  fields: FieldStep[]
}


export type Plan =
  | {
      state: 'ready' | 'nothing-to-do'
      steps: PlanStep[]
      /** How many parts stay as they are, with nothing to tell of them. */
      unchanged: number
      changes: Change[]
      /** Conflicts nobody has decided on; they are left as they are. */
      undecided: number
      /** Whether it only adds, so that it may run under a standing approval. */
      additive: boolean
      consequences: Consequence[]
      next: NextBase
      /** Instances it creates. */
      creates: string[]
    }
  /** Left out until somebody decides. */
  | { state: 'left-out'; reason: string }

interface Found {
  module: CourseModule | null
  item: CourseItem | null
}

const noPage = { html: null, steps: [] as FieldStep[], blocks: [] as NextBlock[], ours: false }

/**
 * What a deployment of the expected course would do to a course: a three-way merge of what was last deployed (base), what
 * stands there (course) and what the template wants now (expected), part by part, field by field and block by block. Into
 * a shell it creates everything. Pure: the same input gives the same plan, and a plan that was run gives an empty one.
 */
export const planDeployment = (input: PlanInput): Plan => {
  const { expected, course, base, bodies, onDate, only = null, except = [], restore = {}, decisions = noDecisions, adopt } = input
  if (base.parts.length === 0 && !adopt && !isShell(course))
    return { state: 'left-out', reason: `the course already holds ${course.modules.length} modules that Wickerframe did not put there; bringing a template into a filled course is a decision of its own` }

  const entryOf = new Map(base.parts.map((entry) => [entry.instance, entry]))
  const found = new Map<string, Found>()
  const standsIn = new Map<string, string | null>()
  for (const module of everyModule(course.modules)) found.set(module.id, { module, item: null })
  for (const { item, module } of everyCourseItem(course)) {
    found.set(item.id, { module: null, item })
    standsIn.set(item.id, module?.id ?? null)
  }
  const wantedParts = [...everyExpected(expected.parts).filter((part) => part.kind === 'module' || !part.inBreak), expected.home]
  const partOf = new Map(wantedParts.map((part) => [part.instance, part]))
  const placed = (instance: string): string | undefined => entryOf.get(instance)?.platformId ?? adopt?.get(instance)
  const standing = (instance: string): string | undefined => {
    const id = placed(instance)
    return id !== undefined && found.has(id) ? id : undefined
  }
  const within = (part: ExpectedPart, keys: readonly string[]): boolean => {
    if (keys.includes(part.key)) return true
    const parent = part.parent === null ? undefined : partOf.get(part.parent)
    return parent !== undefined && within(parent, keys)
  }
  const chosenPart = (part: ExpectedPart): boolean => !within(part, except) && (only === null || within(part, only.parts))
  const chosenBlock = (part: ExpectedPart, block: string): boolean => chosenPart(part) || (only?.blocks.includes(`${part.key}/${block}`) ?? false)

  const created = new Set<string>()
  const decideCreate = (part: ExpectedPart): boolean => {
    if (standing(part.instance) !== undefined || !chosenPart(part)) return false
    if (entryOf.has(part.instance) && !(restore.missingParts && part.strength !== 'may')) return false
    return part.parent === null || standing(part.parent) !== undefined || created.has(part.parent)
  }
  for (const part of wantedParts) if (decideCreate(part)) created.add(part.instance)

  const alive = (instance: string): boolean => standing(instance) !== undefined || created.has(instance)
  const wantedBlocks = (part: ExpectedPart): WantedBlock[] =>
    part.blocks.map((block) => {
      const html = blockHtmlOn(block, onDate)
      const whole = withLinks(html, (instance) => keptRef(instance, partOf))
      const living = withLinks(html, (instance) => (alive(instance) ? keptRef(instance, partOf) : '#'))
      const written = withLinks(html, (instance) => {
        const id = standing(instance)
        return id !== undefined ? `item:${id}` : created.has(instance) ? `ref:${instance}` : '#'
      })
      return {
        key: block.key, isFillIn: block.kind === 'fill-in', isGuidance: block.kind === 'guidance-note', isFixed: block.kind === 'fixed-text' || block.kind === 'house-text',
        written: markedBlock(block.key, part.instance, written), kept: living, unchangedAs: living === whole ? [whole] : [whole, living],
      }
    })

  const steps: PlanStep[] = []
  const changes: Change[] = []
  const next: NextEntry[] = []
  const places = placesOf(course)
  let unchanged = 0
  const nameOf = (instance: string | null): string | null => (instance === null ? null : (partOf.get(instance)?.name ?? null))
  const tell = (does: PlanStep['does'], part: ExpectedPart, reason: string, fields: FieldStep[] = [], name = part.name) =>
    steps.push({ does, instance: part.instance, part: part.key, kind: part.kind, name, into: nameOf(part.parent), opensAt: part.opensAt, dueAt: part.dueAt, reason, fields })
  const refOf = (instance: string): string => standing(instance) ?? `ref:${instance}`
  const record = (part: ExpectedPart): Omit<NextEntry, 'platformId' | 'fields' | 'freshFields' | 'blocks' | 'page' | 'freshPage'> => ({
    instance: part.instance, template: expected.template.key, part: part.key, repetition: part.repetition, number: part.repetitionNumber, kind: part.kind, parent: part.parent, format: formatOfName(part),
  })

  const siblings = new Map<string | null, string[]>([[null, [...expected.parts, expected.home].map((part) => part.instance)], ...wantedParts.map((part) => [part.instance, part.items.map((item) => item.instance)] as const)])
  const refsOfSiblings = new Map<string | null, string[]>()
  const siblingRefs = (part: ExpectedPart): string[] => {
    let refs = refsOfSiblings.get(part.parent)
    if (!refs) refsOfSiblings.set(part.parent, (refs = (siblings.get(part.parent) ?? []).map(refOf)))
    return refs
  }
  const create = (part: ExpectedPart, reason: string) => {
    const { definition } = part
    const fields = wantedFields(part, expected)
    const parent = part.parent === null ? null : refOf(part.parent)
    const self = `ref:${part.instance}`
    if (definition.kind === 'module') {
      const list = places.modulesIn(parent)
      const at = placeAmong(list, siblingRefs(part), self)
      list.splice(at ?? list.length, 0, self)
      changes.push({ change: 'create-module', clientId: part.instance, parent, at, fields: fields as { name: string } })
    } else {
      const list = places.itemsIn(parent)
      const at = placeAmong(list, siblingRefs(part), self)
      list.splice(at ?? list.length, 0, self)
      const written = wantedBlocks(part)
      changes.push({
        change: 'create-item', clientId: part.instance, module: parent, at, kind: definition.kind,
        fields: { ...(gathered(null, fields) as { name: string }), ...(written.length > 0 || definition.kind === 'page' ? { html: written.map((block) => block.written).join('\n') } : {}) },
      })
    }
    next.push({
      ...record(part), platformId: null, fields: Object.fromEntries(Object.entries(fields).map(([field, value]) => [field, { sent: (value ?? null) as FieldBase['sent'], echo: null }])), freshFields: Object.keys(fields),
      blocks: part.blocks.length === 0 ? [] : wantedBlocks(part).map((block) => ({ key: block.key, sent: bodies.idOf(block.kept), page: null, fresh: true })), page: null, freshPage: true,
    })
    tell('create', part, reason)
  }

  /** Fields of a part that stands: what to write, what the base becomes, and what to tell. */
  const mergeFields = (instance: string, wanted: Fields, of: Course | CourseModule | CourseItem, before: Record<string, FieldBase> | null, name: { format: string | null; part: ExpectedPart } | null, hasWork: boolean) => {
    const write: Fields = {}
    const told: FieldStep[] = []
    const fields: Record<string, FieldBase> = { ...before }
    // What the template did not speak of when it was deployed is untouched while nothing is set there.
    const unspoken: FieldBase | null = before === null ? null : { sent: null, echo: null }
    const freshFields: string[] = []
    for (const [field, value] of Object.entries(wanted)) {
      const was = before?.[field] ?? unspoken
      const present = presentField(of, field)
      const fate = fateOf(was, present, value)
      const say = (does: FieldStep['does'], result: unknown, reason: string, decided: Decision | null = null) => told.push({ field, does, base: was?.sent ?? null, present, wanted: value, result, decided, reason })
      const sent = (value ?? null) as FieldBase['sent']
      if (fate === 'agree') {
        fields[field] = { sent, echo: present as FieldBase['echo'] }
        if (was === null || !sameValue(was.sent, value)) say('agree', present, was === null ? 'is there already' : 'the course says what the template says now')
        continue
      }
      if (fate === 'same' || fate === 'keep') continue
      if (hasWork && touchesWork(field)) {
        say('leave', present, 'students have work in it; it is left alone')
        continue
      }
      if (fate === 'change') {
        write[field] = value
        fields[field] = { sent, echo: null }
        freshFields.push(field)
        say('change', value, 'changed in the template; it is as it was deployed')
        continue
      }
      const merged = field === 'name' && name?.format && was ? mergeName({ format: name.format, name: String(was.sent) }, String(present), formatOfName(name.part), name.part.values) : null
      if (merged !== null) {
        // Kept as wanted, not as it stands: the instructor's own words in it stay theirs in the next merge.
        fields[field] = { sent, echo: sent }
        if (merged !== present) write[field] = merged
        say(merged === present ? 'agree' : 'change', merged, merged === present ? 'the instructor’s words stay in it' : 'changed in the template; the instructor’s own words stay in it')
        continue
      }
      const decided = decisionFor(decisions, instance, field)
      if (decided === 'take') {
        write[field] = value
        fields[field] = { sent, echo: null }
        freshFields.push(field)
      } else if (decided === 'keep') fields[field] = { sent, echo: sent }
      say('conflict', decided === 'take' ? value : present, was === null ? 'the course says something else than the template' : 'changed in the template and in the course', decided === 'both' ? null : decided)
    }
    return { write, told, fields, freshFields }
  }

  // The course itself.
  const courseBase: NextBase = { course: { ...base.course }, freshCourseFields: [], parts: next }
  const first = base.parts.length === 0
  const setsCourse = !except.includes('course') && (only === null || only.parts.includes('course'))
  if (setsCourse) {
    const wanted = wantedCourseFields(expected)
    const before = first && !adopt ? Object.fromEntries(Object.keys(wanted).map((field) => [field, { sent: 'before deployment', echo: presentField(course, field) as FieldBase['echo'] }])) : first ? null : base.course
    const { write, told, fields, freshFields } = mergeFields('course', wanted, course, before, null, false)
    const { navigation, ...set } = gathered(course, write)
    if (Object.keys(set).length > 0) changes.push({ change: 'set-course', ...set })
    if (navigation !== undefined) changes.push({ change: 'set-navigation', navigation: navigation as { label: string; hidden: boolean }[] })
    courseBase.course = fields
    courseBase.freshCourseFields = freshFields
    if (told.length > 0)
      steps.push({
        does: told.some((one) => one.does === 'conflict') ? 'conflict' : told.some((one) => one.does === 'change') ? 'set' : 'keep', instance: 'course', part: 'course', kind: 'course', name: expected.name, into: null, opensAt: null, dueAt: null, fields: told,
        reason: first && !adopt ? `named ${expected.name}, label ${expected.label}, in the time of ${expected.facts.term.timeZone}${expected.window ? ', open for as long as the template says' : ''}` : 'the course itself',
      })
  }

  // Orders of siblings: as deployed, as wanted, as they stand. What the template moved is in the one, what people moved in the other.
  const movedByTemplate = new Map<string | null, Set<string>>()
  const movedByPeople = new Map<string | null, Set<string>>()
  const parents = new Set(wantedParts.map((part) => part.parent))
  const basesIn = new Map<string | null, BaseEntry[]>()
  for (const entry of base.parts) {
    if (standing(entry.instance) === undefined) continue
    const held = basesIn.get(entry.parent)
    if (held) held.push(entry)
    else basesIn.set(entry.parent, [entry])
  }
  for (const parent of parents) {
    const inBase = basesIn.get(parent) ?? []
    const asWanted = siblings.get(parent) ?? []
    movedByTemplate.set(parent, movedBetween(inBase.map((entry) => entry.instance), asWanted))
    const home = parent === null ? null : (standing(parent) ?? null)
    const ofPlatform = new Map(inBase.map((entry) => [entry.platformId, entry.instance]))
    const asFound = [...places.modulesIn(home), ...places.itemsIn(home)].flatMap((id) => ofPlatform.get(id) ?? [])
    movedByPeople.set(parent, movedBetween(inBase.map((entry) => entry.instance), asFound))
  }

  const mergePlace = (part: ExpectedPart, id: string, entry: BaseEntry | undefined): FieldStep | null => {
    if (!entry || !chosenPart(part)) return null
    const module = standsIn.get(id)
    const parentMoved = entry.parent !== part.parent
    const orderMoved = movedByTemplate.get(part.parent)?.has(part.instance) ?? false
    if (!parentMoved && !orderMoved) return null
    const toModule = part.parent === null ? null : refOf(part.parent)
    const fromModule = entry.parent === null ? null : placed(entry.parent)
    const peopleMoved = (part.kind !== 'module' && module !== fromModule) || (movedByPeople.get(entry.parent)?.has(part.instance) ?? false)
    const say = (does: FieldStep['does'], decided: Decision | null, reason: string): FieldStep => ({ field: 'place', does, base: nameOf(entry.parent), present: module === undefined || module === null ? null : (found.get(module)?.module?.name ?? null), wanted: nameOf(part.parent), result: does === 'change' || decided === 'take' ? nameOf(part.parent) : null, decided, reason })
    if (toModule !== null && toModule.startsWith('ref:') && !created.has(part.parent ?? '')) return say('leave', null, 'the module it moves to is not there')
    if (part.kind === 'module' && parentMoved) return say('leave', null, 'a module is not moved into another one; move it by hand')
    const decided = peopleMoved ? decisionFor(decisions, part.instance, 'place') : null
    if (peopleMoved && decided !== 'take') return say('conflict', decided === 'both' ? null : decided, 'moved in the template and in the course')
    const list = part.kind === 'module' ? places.modulesIn(toModule) : places.itemsIn(toModule)
    const from = part.kind === 'module' ? list : places.itemsIn(module ?? null)
    const was = from.indexOf(id)
    from.splice(was, 1)
    const at = placeAmong(list, siblingRefs(part), id)
    list.splice(at ?? list.length, 0, id)
    if (from === list && list.indexOf(id) === was) return null
    changes.push(part.kind === 'module' ? { change: 'move-module', id, at } : { change: 'move-item', id, module: toModule, at })
    return say(peopleMoved ? 'conflict' : 'change', decided, 'moved in the template')
  }

  const merge = (part: ExpectedPart, id: string) => {
    const entry = entryOf.get(part.instance)
    const at = found.get(id)
    const of = at?.item ?? at?.module
    if (!at || !of) return
    const hasWork = at.item?.studentWork ?? false
    const whole = chosenPart(part)
    const wanted = whole ? wantedFields(part, expected) : {}
    const { write, told, fields, freshFields } = mergeFields(part.instance, wanted, of, entry?.fields ?? null, { format: entry?.format ?? null, part }, hasWork)
    const anyBlock = part.blocks.length > 0 || (entry?.blocks.length ?? 0) > 0
    const page = at.item && anyBlock
      ? mergePage({
          wanted: wantedBlocks(part), base: entry ? entry.blocks : null, ours: entry?.page ?? null, present: at.item.html, bodies, restoreFixed: restore.fixedText ?? false,
          decide: (field) => decisionFor(decisions, part.instance, field), chosen: (block) => chosenBlock(part, block),
        })
      : noPage
    if (Object.keys(write).length > 0 || page.html !== null) {
      const set = gathered(of, write)
      changes.push(at.item ? { change: 'set-item', id, fields: { ...set, ...(page.html === null ? {} : { html: page.html }) } } : { change: 'set-module', id, fields: set })
    }
    const place = mergePlace(part, id, entry)
    // Where a place was not taken over, the base keeps the place it was deployed to.
    const placeHeld = place !== null && place.does !== 'change' && place.decided === null
    next.push({
      ...record(part), parent: entry && (!whole || placeHeld) ? entry.parent : part.parent, format: fields['name'] && sameValue(fields['name'].sent, part.name) ? formatOfName(part) : (entry?.format ?? null), platformId: id, fields, freshFields, blocks: page.blocks,
      page: page.html === null ? (page.ours ? (entry?.page ?? null) : null) : null, freshPage: page.html !== null && page.ours,
    })
    // What a course that is taken over says as the template does needs no telling.
    const all = [...told, ...page.steps, ...(place ? [place] : [])].filter((one) => entry || one.does !== 'agree' || one.reason !== 'is there already')
    if (all.length === 0 && entry) return void (unchanged += 1)
    const does: PlanStep['does'] = all.some((one) => one.does === 'conflict') ? 'conflict' : !entry ? 'adopt' : all.some((one) => one.does === 'change' || one.does === 'restore') ? (all.every((one) => one.field === 'place') ? 'move' : 'change') : 'keep'
    tell(does, part, !entry ? 'is there already; it is taken as this part' : all.map((one) => one.reason)[0] ?? '', all, of.name)
  }

  const visit = (part: ExpectedPart) => {
    const id = standing(part.instance)
    const entry = entryOf.get(part.instance)
    if (created.has(part.instance)) create(part, entry ? 'was removed from the course; brought back, as asked' : part.audience === 'staff' ? 'new, hidden: it is for staff' : 'new')
    else if (id !== undefined && entry && entry.kind !== part.kind) {
      next.push({ ...entry, freshFields: [], blocks: entry.blocks.map((block) => ({ ...block, fresh: false })), freshPage: false })
      tell('keep', part, `is a ${entry.kind} here and a ${part.kind} in the template now; it is left as it is, change it by hand`)
    } else if (id !== undefined) merge(part, id)
    else if (entry) {
      next.push({ ...entry, freshFields: [], blocks: entry.blocks.map((block) => ({ ...block, fresh: false })), freshPage: false })
      tell('keep', part, 'deployed before and removed since; stays removed')
    } else if (chosenPart(part)) tell('keep', part, 'its module is not in the course, so it is not created')
    for (const inner of part.items) if (inner.kind === 'module' || !inner.inBreak) visit(inner)
  }
  expected.parts.forEach(visit)
  visit(expected.home)

  // Parts that the template had before and no longer has: items before the modules they stand in, inner before outer.
  const goneEntries = base.parts.filter((entry) => !partOf.has(entry.instance))
  for (const entry of [...goneEntries].reverse().sort((a, b) => Number(a.kind === 'module') - Number(b.kind === 'module'))) {
    const at = found.get(entry.platformId)
    const of = at?.item ?? at?.module
    const kept = () => next.push({ ...entry, freshFields: [], blocks: entry.blocks.map((block) => ({ ...block, fresh: false })), freshPage: false })
    if (!at || !of) continue
    const say = (does: 'remove' | 'keep', reason: string) =>
      steps.push({ does, instance: entry.instance, part: entry.part, kind: entry.kind, name: of.name, into: nameOf(entry.parent), opensAt: null, dueAt: null, reason, fields: [] })
    const inIt = at.module ? [...places.itemsIn(entry.platformId), ...places.modulesIn(entry.platformId)] : []
    const untouched = Object.entries(entry.fields).every(([field, { echo }]) => sameValue(presentField(of, field), echo)) && (!at.item || (at.item.html ?? '') === '' || (entry.page !== null && bodies.idOf(at.item.html ?? '') === entry.page))
    // What another template brought is none of this one's business.
    if (entry.template !== expected.template.key || (only !== null && !only.parts.includes(entry.part)) || except.includes(entry.part)) kept()
    else if (at.item?.studentWork) {
      kept()
      say('keep', 'no longer in the template, but students have work in it; it stays')
    } else if (!untouched) {
      kept()
      say('keep', 'no longer in the template, but it was edited here; it stays')
    } else if (inIt.length > 0) {
      kept()
      say('keep', 'no longer in the template, but something stands in it; it stays')
    } else if (at.item && course.homePage === at.item.id) {
      kept()
      say('keep', 'no longer in the template, but it is the home page; it stays')
    } else {
      changes.push({ change: at.module ? 'remove-module' : 'remove-item', id: entry.platformId })
      const list = at.module ? places.modulesIn(entry.parent === null ? null : (placed(entry.parent) ?? null)) : places.itemsIn(standsIn.get(entry.platformId) ?? null)
      const index = list.indexOf(entry.platformId)
      if (index >= 0) list.splice(index, 1)
      say('remove', 'no longer in the template; it is as it was deployed, and nobody has worked in it')
    }
  }

  // Which page is shown first.
  const homeRef = refOf(expected.home.instance)
  if (alive(expected.home.instance) && (created.has(expected.home.instance) || chosenPart(expected.home))) {
    const before: FieldBase | null = base.course['home'] ?? null
    const fate: ReturnType<typeof fateOf> = first && !adopt ? 'change' : created.has(expected.home.instance) ? (before === null || course.homePage === null ? 'change' : 'keep') : before === null ? (course.homePage === homeRef ? 'agree' : 'conflict') : 'same'
    if (fate === 'change') changes.push({ change: 'set-home', item: homeRef })
    if (fate === 'change' || fate === 'agree') courseBase.course = { ...courseBase.course, home: { sent: expected.home.instance, echo: expected.home.instance } }
    if (fate === 'conflict') {
      const decided = decisionFor(decisions, 'course', 'home')
      if (decided === 'take') changes.push({ change: 'set-home', item: homeRef })
      if (decided === 'take' || decided === 'keep') courseBase.course = { ...courseBase.course, home: { sent: expected.home.instance, echo: expected.home.instance } }
      const present = course.homePage === null ? null : (found.get(course.homePage)?.item?.name ?? null)
      steps.push({ does: 'conflict', instance: 'course', part: 'course', kind: 'course', name: 'Home page', into: null, opensAt: null, dueAt: null, reason: 'another page is shown first', fields: [{ field: 'home', does: 'conflict', base: null, present, wanted: expected.home.name, result: decided === 'take' ? expected.home.name : present, decided: decided === 'both' ? null : decided, reason: 'another page is shown first' }] })
    }
  }

  const undecided = steps.reduce((sum, step) => sum + step.fields.filter((one) => one.does === 'conflict' && one.decided === null).length, 0)
  const decidedOn = steps.some((step) => step.does === 'adopt' || step.fields.some((one) => one.does === 'agree' || (one.does === 'conflict' && one.decided !== null)))
  return {
    state: changes.length > 0 || decidedOn ? 'ready' : 'nothing-to-do', steps, unchanged, changes, undecided, next: courseBase, creates: [...created],
    additive: changes.length > 0 && changes.every((change) => change.change === 'create-item' || change.change === 'create-module'),
    consequences: consequencesOf(changes, steps, course, expected),
  }
}
