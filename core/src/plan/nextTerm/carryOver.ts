import { letIn } from '../../allow/index.ts'
import { datesMentioned } from '../../calendar/index.ts'
import {
  everyCourseItem,
  everyModule,
  restrictedFiles,
  type Change,
  type Course,
  type CourseItem,
  type CourseModule,
  type Facts,
} from '../../course/index.ts'
import type { ExpectedCourse } from '../../expand/index.ts'
import type { Base, BaseEntry } from '../base.ts'
import { sentHandout } from '../../files/index.ts'
import { bodiesOfBase, missingBodies, type Bodies } from '../bodies.ts'
import type { Consequence } from '../consequence.ts'
import type { FieldStep } from '../mergeCase.ts'
import { mergeName } from '../mergeName.ts'
import { isFileUntold, isTextUntold } from '../untold.ts'
import { isWorkedOut, unusableWithout, type Plan } from '../plan.ts'
import type { NextQuestion } from '../nextBase.ts'
import { formatOfName } from '../wantedFields.ts'
import { fileComesAlong, theirFile } from './carriedFile.ts'
import { carriedPage, wordsLeft } from './carriedPage.ts'
import { carriedQuestions, ownQuestions, wordsOfTheirQuestions } from './carriedQuestions.ts'
import type { CarryKind } from './carryKinds.ts'
import { counterparts } from './counterparts.ts'
import { keptPlaces, modulesAround } from './keptPlaces.ts'
import { topicsInOrder } from './topicsInOrder.ts'
import { wordsOfPage } from './wordsOfPage.ts'

/** A course that another one is made from: as it stands, and what was deployed to it. */
export interface CarrySource {
  course: Course
  base: Base
  bodies: Bodies
  /** Its facts: in the same term, dates come along. */
  facts: Facts
}

/** What of a part comes along. */
interface Carried {
  blocks: Set<string>
  page: boolean
  name: boolean
  /** null: none of theirs. */
  questions: NextQuestion[] | null
  file: boolean
}

const kindOfOwn = (item: CourseItem, module: CourseModule | null): CarryKind => {
  if (/announce|notice|bulletin/i.test(`${module?.name ?? ''} ${item.name}`)) return 'announcements'
  return item.kind === 'page' || item.kind === 'file' || item.kind === 'heading'
    ? 'own-pages'
    : 'own-activities'
}

/** Words as they are quoted: enough to know them by. */
const quoted = (where: string, words: string): string =>
  `${where}: “${words.length > 120 ? `${words.slice(0, 119)}…` : words}”`

/**
 * A plan for a new course that brings along what its people wrote in an earlier one: answers to fill-ins, their own words in
 * names and pages, items of their own, by kind. Nothing that Wickerframe did not deliver leaves a staff or hidden module, and
 * no file that is kept from students (invariant 11). What speaks of the earlier term is told, and whatever of theirs does
 * not come along.
 * @param plan into the empty new course
 */
export const carryOver = (
  plan: Plan,
  expected: ExpectedCourse,
  source: CarrySource,
  kinds: ReadonlySet<CarryKind>,
): Plan => {
  if (!isWorkedOut(plan)) return plan
  const { course, base, bodies, facts } = source
  const lacking = unusableWithout(missingBodies(bodiesOfBase(base), bodies))
  if (lacking) return lacking
  const { term } = facts
  const sameTerm = term.code === expected.facts.term.code
  const parts = counterparts(base, expected)
  const entryOfId = new Map(base.parts.map((entry) => [entry.platformId, entry]))
  const placed = everyCourseItem(course)
  const items = new Map(placed.map(({ item }) => [item.id, item]))
  const moduleOf = new Map(placed.map(({ item, module }) => [item.id, module]))
  const creates = new Set(plan.creates)
  const told = new Map<Consequence['code'], string[]>()
  const tell = (code: Consequence['code'], where: string) =>
    void told.set(code, [...(told.get(code) ?? []), where])

  /** Where a source item's counterpart stands in the new course: an instance, an own item that comes along, or nowhere. */
  const own = new Map<string, string>()
  const counterpart = (id: string): string | null => {
    const entry = entryOfId.get(id)
    const instance = entry && parts.of(entry)?.instance
    return instance !== undefined && creates.has(instance) ? instance : (own.get(id) ?? null)
  }
  const idOfUrl = new Map(
    placed.flatMap(({ item }) => (item.url === null ? [] : [[item.url, item.id] as const])),
  )
  const fileOfUrl = new Map(
    (course.files ?? []).flatMap(({ url, name, content }) =>
      content === undefined ? [] : [[url, { name, content }] as const],
    ),
  )
  const restricted = restrictedFiles(course)
  /** HTML with links into the earlier course leading to their counterparts; without one they lose their target. */
  const relinkedIn =
    (where: string) =>
    (html: string): string =>
      html.replace(/(href|src)="([^"]+)"/g, (whole, attribute: string, url: string) => {
        if (restricted.at(url)) {
          tell('left-behind', 'a link to a file that is kept from students')
          return `${attribute}="#"`
        }
        const id = idOfUrl.get(url)
        if (id === undefined) {
          const file = attribute === 'href' ? fileOfUrl.get(url) : undefined
          if (!file) return whole
          if (!hiddenContents.has(file.content)) return `href="${sentHandout(file)}"`
          tell('left-behind', 'a link to a file in a hidden place')
          return 'href="#"'
        }
        const there = counterpart(id)
        if (there !== null) return `${attribute}="ref:${there}"`
        tell('dead-links', where)
        return `${attribute}="#"`
      })
  const listen = (text: string, where: string) => {
    if (sameTerm) return
    if (datesMentioned(text).length > 0) tell('dates-in-prose', where)
    if (term.title !== '' && text.includes(term.title)) tell('old-term', where)
  }

  // Which of their own items come along is settled first, so that links to them find them.
  const staffEntry = (entry: BaseEntry | undefined): boolean =>
    entry !== undefined && (parts.of(entry)?.audience ?? 'students') !== 'students'
  const kept = keptPlaces(course, (module) => staffEntry(entryOfId.get(module.id)))
  /** What stands in a hidden place stays there, also where a page leads to it. */
  const hiddenContents = new Set(
    placed.flatMap(({ item, module }) =>
      item.file && kept.item(item, module) ? [item.file.content] : [],
    ),
  )
  const comes = placed.filter(({ item, module }) => {
    if (entryOfId.has(item.id)) return false
    if (kept.item(item, module)) {
      // Its name is nobody's to read elsewhere.
      tell(
        'left-behind',
        item.kind === 'file' ? 'a file in a hidden place' : 'an item in a hidden place',
      )
      return false
    }
    if (isFileUntold(item) && item.target === null) {
      tell('left-behind', `the file “${item.name}”, which cannot be seen`)
      return false
    }
    if (isTextUntold(item, null)) {
      tell('left-behind', `the page “${item.name}”, which cannot be seen`)
      return false
    }
    if (kinds.has(kindOfOwn(item, module))) return true
    tell('not-chosen', item.name)
    return false
  })
  for (const { item } of comes) own.set(item.id, `own-${item.id}`)
  const around = modulesAround(course)
  /** Modules of their own that come along with something that stands in them. */
  const come = new Set(comes.flatMap(({ module }) => (module ? (around.get(module.id) ?? []) : [])))
  for (const module of everyModule(course.modules))
    if (!entryOfId.has(module.id) && !come.has(module) && !kept.module(module))
      tell('not-chosen', `the module “${module.name}”`)

  const steps = new Map(plan.steps.map((step) => [step.instance, step]))
  const carried = new Map<string, Carried>()
  const note = (instance: string, field: FieldStep) => {
    const step = steps.get(instance)
    if (step)
      steps.set(instance, {
        ...step,
        reason: 'new, with what was written in the earlier course',
        fields: [...step.fields, field],
      })
  }
  const partAt = new Map(
    base.parts.flatMap((entry) => {
      const part = parts.of(entry)
      return part ? [[part.instance, { entry, part }] as const] : []
    }),
  )
  const changes = plan.changes.map((change): Change => {
    if (change.change !== 'create-item' && change.change !== 'create-module') return change
    const pair = partAt.get(change.clientId)
    if (!pair) return change
    const { entry, part } = pair
    const marks: Carried = {
      blocks: new Set(),
      page: false,
      name: false,
      questions: null,
      file: false,
    }
    carried.set(part.instance, marks)
    const present = nameIn(course, entry.platformId)
    const named = carriedName(entry, present, part)
    if (named.state === 'theirs' && kinds.has('topics')) {
      if (named.name !== part.name) {
        marks.name = true
        note(part.instance, {
          field: 'name',
          does: 'change',
          base: null,
          present: part.name,
          wanted: part.name,
          result: named.name,
          decided: null,
          reason: 'the instructor’s own words come along',
        })
        listen(named.name, named.name)
      }
    } else if (named.state !== 'ours' && present !== null)
      tell(named.state === 'theirs' ? 'not-chosen' : 'words-left', `the name “${present}”`)
    const name = marks.name && named.state === 'theirs' ? named.name : change.fields.name
    if (change.change === 'create-module') return { ...change, fields: { ...change.fields, name } }
    const item = items.get(entry.platformId)
    let { html } = change.fields
    if (item && isTextUntold(item, entry.blocks))
      tell('left-behind', `what stands on “${item.name}”, which cannot be seen`)
    if (html !== undefined && item?.html) {
      const page = carriedPage({
        present: item.html,
        entry,
        part,
        written: html,
        kinds,
        bodies,
        relinked: relinkedIn(name),
      })
      html = page.html
      marks.blocks = page.blocks
      marks.page = page.isTheirs
      for (const step of page.steps) note(part.instance, step)
      for (const words of page.came) listen(words, quoted(name, words))
      for (const words of page.stays) tell('words-left', quoted(item.name, words))
      for (const words of page.together) tell('answers-together', quoted(name, words))
    }
    if (part.kind === 'tool-link' && !sameTerm) tell('attest-again', name)
    let { questions } = change.fields
    if (item?.questions && item.questions.length > 0) {
      const theirs = carriedQuestions(
        item.questions,
        entry,
        part,
        questions ?? { order: [], remove: [] },
        relinkedIn(name),
      )
      for (const words of theirs.stays) tell('words-left', quoted(item.name, words))
      if (kinds.has('answers')) {
        questions = theirs.written
        marks.questions = theirs.known
        for (const words of theirs.came) {
          listen(words, quoted(name, words))
          note(part.instance, {
            field: 'question:own',
            does: 'change',
            base: null,
            present: null,
            wanted: null,
            result: words,
            decided: null,
            reason: 'the instructor’s own words come along',
          })
        }
      } else for (const words of theirs.came) tell('not-chosen', quoted(item.name, words))
    }
    let { file } = change.fields
    const theirs =
      item && !kept.item(item, moduleOf.get(item.id) ?? null) ? theirFile(item, entry) : null
    if (theirs) {
      const said = `${name}: the file “${theirs.name}”`
      if (!fileComesAlong(part, sameTerm)) tell('words-left', said)
      else if (!kinds.has('answers')) tell('not-chosen', said)
      else {
        file = theirs
        marks.file = true
        listen(theirs.name, said)
        note(part.instance, {
          field: 'file',
          does: 'change',
          base: null,
          present: null,
          wanted: part.file?.name ?? null,
          result: theirs.name,
          decided: null,
          reason: 'the instructor’s own file comes along',
        })
      }
    } else if (item && theirFile(item, entry)) tell('left-behind', 'a file in a hidden place')
    return {
      ...change,
      fields: {
        ...change.fields,
        name,
        ...(file === undefined ? {} : { file }),
        ...(html === undefined ? {} : { html }),
        ...(questions && questions.order.length > 0 ? { questions } : {}),
      },
    }
  })

  // What stood where nothing of the new course stands.
  for (const entry of base.parts) {
    const part = parts.of(entry)
    if (part && creates.has(part.instance)) continue
    const item = items.get(entry.platformId)
    const isTheirName = carriedName(entry, nameIn(course, entry.platformId), null).state !== 'ours'
    if (isTheirName) tell('no-place', `the name “${nameIn(course, entry.platformId) ?? ''}”`)
    for (const words of item?.html ? wordsLeft(item.html, entry, bodies) : [])
      tell('no-place', quoted(item?.name ?? '', words))
    const file = item && !kept.item(item, moduleOf.get(item.id) ?? null) && theirFile(item, entry)
    if (file) tell('no-place', `${item.name}: the file “${file.name}”`)
    for (const words of item?.questions ? wordsOfTheirQuestions(item.questions, entry) : [])
      tell('no-place', quoted(item?.name ?? '', words))
  }
  if (kinds.has('topics'))
    for (const { week, topic } of topicsInOrder(facts.topics, facts, expected.facts).left)
      tell('no-place', `the topic of week ${week}, “${topic}”`)

  const moduleAt = new Map<string, string>()
  /** How the changes speak of the module in which an item of theirs comes to stand; one of their own is made where it stood. */
  const placeFor = (module: CourseModule): string => {
    const known = moduleAt.get(module.id)
    if (known !== undefined) return known
    const entry = entryOfId.get(module.id)
    const instance = entry && parts.of(entry)?.instance
    const isThere = instance !== undefined && creates.has(instance)
    const place = `ref:${isThere ? instance : `own-${module.id}`}`
    if (!isThere) {
      const [, outer] = around.get(module.id) ?? []
      changes.push({
        change: 'create-module',
        clientId: `own-${module.id}`,
        parent: outer ? placeFor(outer) : null,
        at: null,
        fields: {
          name: module.name,
          published: module.published,
          ...(module.carried ? { carried: module.carried } : {}),
        },
      })
    }
    moduleAt.set(module.id, place)
    return place
  }
  for (const { item, module } of comes) {
    const into = module ? placeFor(module) : null
    const text = item.html === null ? '' : wordsOfPage(item.html)
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
        ...(item.html === null ? {} : { html: letIn(relinkedIn(item.name)(item.html)).html }),
        ...(item.target === null ? {} : { target: item.target }),
        ...(item.work ? { work: item.work } : {}),
        ...(item.rubric ? { rubric: item.rubric } : {}),
        ...(item.questions && item.questions.length > 0
          ? {
              questions: { order: ownQuestions(item.questions, relinkedIn(item.name)), remove: [] },
            }
          : {}),
        ...(item.file ? { file: item.file } : {}),
        ...(item.carried ? { carried: item.carried } : {}),
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
      if (!marks) return entry
      // What of theirs came along in a field: the base knows what was wanted there, not what stands.
      const theirs = [marks.name ? ['name'] : [], marks.file ? ['file'] : []].flat()
      return {
        ...entry,
        fields: Object.fromEntries(
          Object.entries(entry.fields).map(([field, { sent, echo }]) => [
            field,
            { sent, echo: theirs.includes(field) ? sent : echo },
          ]),
        ),
        freshFields: entry.freshFields.filter((field) => !theirs.includes(field)),
        ...(marks.questions ? { questions: marks.questions } : {}),
        ...(marks.page
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
  return {
    ...plan,
    steps: [...steps.values()],
    changes,
    next,
    additive: false,
    consequences: [
      ...plan.consequences,
      ...[...told].map(([code, all]) => ({
        code,
        count: all.length,
        example: all[0] ?? '',
        all: [...new Set(all)].slice(0, mostTold),
      })),
    ],
  }
}

/** More of one kind is counted, not listed. */
const mostTold = 200

const nameIn = (course: Course, id: string): string | null =>
  everyModule(course.modules).find((module) => module.id === id)?.name ??
  everyCourseItem(course).find(({ item }) => item.id === id)?.item.name ??
  null

/**
 * What became of a name in the earlier course: as it was deployed; with the instructor's own words, as it reads in the new
 * course; or written anew, so that it cannot be carried.
 * @param part null where nothing takes its place
 */
const carriedName = (
  entry: BaseEntry,
  present: string | null,
  part: Parameters<typeof formatOfName>[0] | null,
): { state: 'ours' } | { state: 'theirs'; name: string } | { state: 'unreadable' } => {
  const name = entry.fields['name']
  if (present === null || !name || present === name.sent || present === name.echo)
    return { state: 'ours' }
  if (part === null || entry.format === null || typeof name.sent !== 'string')
    return { state: 'unreadable' }
  const merged = mergeName(
    { format: entry.format, name: name.sent },
    present,
    formatOfName(part),
    part.values,
  )
  return merged === null ? { state: 'unreadable' } : { state: 'theirs', name: merged }
}
