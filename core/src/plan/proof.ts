import { z } from 'zod'
import {
  applyChanges,
  everyCourseItem,
  everyModule,
  isCourseModule,
  type Change,
  type Course,
  type CourseItem,
  type CourseModule,
} from '../course/index.ts'
import { analysePage, normalHtml } from '../page/index.ts'
import { sameQuestion } from '../questions/index.ts'
import { sameValue } from './mergeCase.ts'
import { misplaced } from './misplaced.ts'

/** What of a course differs from what a change set was to make of it. */
export const ProofDifference = z.strictObject({
  name: z.string(),
  what: z.enum(['missing', 'extra', 'page', 'empty', 'unseen', 'fields', 'course']),
  fields: z.array(z.string()).default([]),
})
export type ProofDifference = z.output<typeof ProofDifference>

/** A course read again after a change set, held against what the plan said. */
export const Proof = z.strictObject({
  /** `proved`: as planned throughout. `edited`: somebody edited it before it was read again, so what differs may be theirs. */
  state: z.enum(['proved', 'differs', 'edited', 'not-read']),
  changedAsPlanned: z.number().int().describe('Pages that were to change, and did as planned'),
  asTheyWere: z.number().int().describe('Pages that were not to change, and did not'),
  differences: z.array(ProofDifference).max(200),
})
export type Proof = z.output<typeof Proof>

/** A course could not be read again: nothing is proved. */
export const notReadAgain: Proof = {
  state: 'not-read',
  changedAsPlanned: 0,
  asTheyWere: 0,
  differences: [],
}

const wordsOf = (html: string): string =>
  analysePage(html)
    .paragraphs.map((paragraph) => paragraph.text)
    .join(' ')
    .replace(/\s+/g, '')

/** Whether a page says what it was to say, however the platform writes it. */
const isSamePage = (wanted: string | null, there: string | null): boolean =>
  wanted === there ||
  (wanted !== null &&
    there !== null &&
    (normalHtml(wanted) === normalHtml(there) || wordsOf(wanted) === wordsOf(there)))

const itemFields = [
  'kind',
  'name',
  'published',
  'staffOnly',
  'opensAt',
  'dueAt',
  'closesAt',
  'points',
  'category',
  'target',
] as const
const moduleFields = ['name', 'published', 'staffOnly', 'opensAt'] as const
const courseFields = ['name', 'label', 'published', 'homePage', 'navigation'] as const

/** Where an entry leads is compared where both tell it: platforms that do not are not held to it. */
const comparable = (
  entries: Course['navigation'],
  others: Course['navigation'],
): Course['navigation'] =>
  entries.map(({ to, ...entry }, i) =>
    to === undefined || others[i]?.to === undefined ? entry : { ...entry, to },
  )

/** Whether two items hand out the same; a platform that does not tell is not held to it, nor is it to what it calls the file. */
const handOutTheSame = (wanted: CourseItem['file'], there: CourseItem['file']): boolean =>
  wanted === undefined || there === undefined || wanted?.content === there?.content

/** Whether two assessments ask the same in the same order, whatever their questions’ ids are. */
const askTheSame = (wanted: CourseItem['questions'], there: CourseItem['questions']): boolean =>
  (wanted ?? []).length === (there ?? []).length &&
  (wanted ?? []).every(({ body }, i) => {
    const found = there?.[i]
    return found !== undefined && sameQuestion(body, found.body)
  })

/** Settings by name that are other than they were to be; what a platform does not tell it is not held to. */
const settingsDiffer = (wanted: object | undefined, there: object | undefined): boolean => {
  const told = new Map(Object.entries(there ?? {}))
  return Object.entries(wanted ?? {}).some(
    ([name, value]) => told.has(name) && !sameValue(told.get(name), value),
  )
}

const differing = <T extends object>(
  wanted: T,
  there: T,
  fields: readonly (keyof T & string)[],
): string[] => fields.filter((field) => !sameValue(wanted[field] ?? null, there[field] ?? null))

/**
 * Holds a course that was read again against what a change set was to make of what stood before: what was to change did, and
 * nothing else did.
 * @param ids the platform's id for each client id of the set
 * @param answered revision that the platform answered the set with: a later one is somebody's edit since
 */
export const proofOf = (
  before: Course,
  changes: readonly Change[],
  ids: Readonly<Record<string, string>>,
  again: Course,
  answered: string,
): Proof => {
  const addresses = new Map(
    everyCourseItem(again).flatMap(({ item }) => (item.url === null ? [] : [[item.id, item.url]])),
  )
  const made = changes.flatMap((change) => ('clientId' in change ? [change.clientId] : []))
  let questions = 0
  const wanted = applyChanges(before, changes, {
    newId: (kind) => {
      if (kind === 'question') return `question-${(questions += 1)}`
      const client = made.shift()
      return (client === undefined ? undefined : ids[client]) ?? `ref:${client}`
    },
    urlOf: (id) => addresses.get(id) ?? '#',
    rewriteHtml: (html) => html,
  })
  // What the platform answered was carried out cannot be: its course is not the one that was read.
  if (!wanted.ok)
    return {
      state: 'differs',
      changedAsPlanned: 0,
      asTheyWere: 0,
      differences: [{ name: again.name, what: 'course', fields: [] }],
    }
  const { course } = wanted.value
  const written = new Set(
    changes.flatMap((change) =>
      change.change === 'set-item' && change.fields.html !== undefined
        ? [change.id]
        : change.change === 'create-item' && change.fields.html !== undefined
          ? [ids[change.clientId] ?? '']
          : [],
    ),
  )
  const proof: Proof = { state: 'proved', changedAsPlanned: 0, asTheyWere: 0, differences: [] }
  const tell = (name: string, what: ProofDifference['what'], fields: string[] = []) =>
    void proof.differences.push({ name, what, fields })
  const there = new Map<string, CourseItem | CourseModule>([
    ...everyModule(again.modules).map((module) => [module.id, module] as const),
    ...everyCourseItem(again).map(({ item }) => [item.id, item] as const),
  ])
  const elsewhere = misplaced(course, again)
  const placeOf = (id: string): string[] => (elsewhere.has(id) ? ['place'] : [])
  for (const module of everyModule(course.modules)) {
    const found = there.get(module.id)
    there.delete(module.id)
    if (found?.kind !== 'module') tell(module.name, 'missing')
    else {
      const fields = [...differing(module, found, moduleFields), ...placeOf(module.id)]
      if (fields.length > 0) tell(module.name, 'fields', fields)
    }
  }
  for (const { item } of everyCourseItem(course)) {
    const found = there.get(item.id)
    there.delete(item.id)
    if (!found || isCourseModule(found)) {
      tell(item.name, 'missing')
      continue
    }
    const fields = [
      ...differing(item, found, itemFields),
      ...(askTheSame(item.questions, found.questions) ? [] : ['questions']),
      ...(handOutTheSame(item.file, found.file) ? [] : ['file']),
      ...(settingsDiffer(item.work, found.work) ? ['work'] : []),
      ...placeOf(item.id),
    ]
    if (fields.length > 0) tell(item.name, 'fields', fields)
    if (!isSamePage(item.html, found.html))
      tell(item.name, found.html === null ? 'unseen' : found.html.trim() === '' ? 'empty' : 'page')
    else if (item.html === null) continue
    else if (written.has(item.id)) proof.changedAsPlanned += 1
    else proof.asTheyWere += 1
  }
  for (const { name } of there.values()) tell(name, 'extra')
  const ofCourse = [
    ...differing(
      { ...course, navigation: comparable(course.navigation, again.navigation) },
      { ...again, navigation: comparable(again.navigation, course.navigation) },
      courseFields,
    ),
    ...(settingsDiffer(course.settings, again.settings) ? ['settings'] : []),
  ]
  if (ofCourse.length > 0) tell(course.name, 'course', ofCourse)
  return {
    ...proof,
    state:
      proof.differences.length === 0
        ? 'proved'
        : again.revision === answered
          ? 'differs'
          : 'edited',
    differences: proof.differences.slice(0, 200),
  }
}

const pages = (count: number): string => `${count} ${count === 1 ? 'page' : 'pages'}`
const differenceWords = ({ name, what, fields }: ProofDifference): string =>
  ({
    missing: `“${name}” is not there`,
    extra: `“${name}” is there and was not planned`,
    page: `“${name}” says something else`,
    empty: `“${name}” is empty`,
    unseen: `“${name}” cannot be seen`,
    fields: `“${name}” has another ${fields.join(', ')}`,
    course:
      fields.length > 0 ? `the course has another ${fields.join(', ')}` : 'it is another course',
  })[what]

/** A proof as a sentence for people. */
export const proofWords = ({ state, changedAsPlanned, asTheyWere, differences }: Proof): string => {
  if (state === 'not-read') return 'it could not be read again, so nothing is proved'
  const held =
    changedAsPlanned === 0
      ? `read again: ${pages(asTheyWere)} as they were`
      : `read again: ${pages(changedAsPlanned)} changed as planned, ${asTheyWere} as they were`
  if (state === 'proved') return held
  const named = differences.slice(0, 3).map(differenceWords).join('; ')
  const more = differences.length > 3 ? `; and ${differences.length - 3} more` : ''
  return `${held}; ${state === 'edited' ? 'edited since' : 'differs'}: ${named}${more}`
}
