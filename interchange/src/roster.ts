import { z } from 'zod'
import {
  duties,
  isLine,
  modalities,
  peopleAsFacts,
  type Duty,
  type Person,
} from '@wickerframe/core'
import { readTable, type Encoding } from './tableFile.ts'

/**
 * The columns of a roster file, in any order; session and duty may be left out. One row is one person who teaches one class
 * section, or helps there.
 */
export const rosterColumns = [
  'code',
  'title',
  'term',
  'session',
  'class section',
  'own or shared',
  'instructor e-mail',
  'instructor name',
  'duty',
  'modality',
  'weeks',
  'platform course id',
  'status',
] as const
type Column = (typeof rosterColumns)[number]
const mayBeLeftOut: readonly Column[] = ['session', 'duty']

export const courseStatuses = ['preparing', 'teaching', 'merged', 'set-aside', 'cancelled'] as const

/** One course as its rows of a roster file say it. */
export interface RosterCourse {
  /** Line of its first row in the file. */
  line: number
  platformId: string
  code: string
  title: string
  department: string
  term: string
  session: string | null
  modality: (typeof modalities)[number]
  weeks: number
  status: (typeof courseStatuses)[number]
  classSectionKind: 'own' | 'shared'
  classSections: string[]
  /** Who teaches it, in the order of the file. */
  instructors: Person[]
  /** Which of them owns it, and who helps them; null: the file does not speak of it. */
  duties: { owner: string | null; assistants: Person[] } | null
}

/** A mistake in a roster file: which line and column, what stands there, what is wanted. */
export interface RosterError {
  line: number
  column: string
  found: string
  reason: string
}

const text = (most: number) =>
  z
    .string()
    .min(1, 'this may not be empty')
    .max(most, `at most ${most} characters`)
    .refine(isLine, 'one line of text, without control characters')
const columns: Record<Column, z.ZodType> = {
  code: text(60),
  title: text(300),
  term: text(60),
  session: z.string().max(60),
  'class section': text(40),
  'own or shared': z.enum(['own', 'shared'], 'own or shared'),
  'instructor e-mail': z.union(
    [z.literal(''), z.email('an e-mail address').max(200)],
    'an e-mail address, or nothing',
  ),
  'instructor name': z.string().max(200).refine(isLine, 'one line of text'),
  duty: z.enum(['', ...duties], `${duties.join(', ')}, or nothing`),
  modality: z.enum(modalities, `one of ${modalities.join(', ')}`),
  weeks: z.string().regex(/^([1-9]|[1-5]\d|60)$/, 'a whole number from 1 to 60'),
  'platform course id': z.string().regex(/^[\w-]{1,60}$/, 'letters, digits, - and _, at most 60'),
  status: z.enum(courseStatuses, `one of ${courseStatuses.join(', ')}`),
}

/** How courses are made for rows that name none. */
export const makeCoursesWords = ['each', 'shared'] as const
export type MakeCourses = (typeof makeCoursesWords)[number]

const idMadeOf = (words: readonly string[]): string =>
  words
    .filter((word) => word !== '')
    .join('-')
    .toLowerCase()
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .replace(/[^\w-]+/g, '-')

const mostErrors = 200
const mostRows = 50_000

export interface RosterReading {
  courses: RosterCourse[]
  rows: number
  errors: RosterError[]
  takenFor: Encoding
}

const wholeFile = (found: string, reason: string): RosterReading => ({
  courses: [],
  rows: 0,
  errors: [{ line: 1, column: '', found, reason }],
  takenFor: 'UTF-8',
})

/** Why a value may not stand in a column, null where it may; one that stands in many rows is looked at once. */
const reasonsOf = (): ((column: Column, value: string) => string | null) => {
  const fine = new Map(rosterColumns.map((column) => [column, new Set<string>()]))
  return (column, value) => {
    if (fine.get(column)?.has(value)) return null
    const read = columns[column].safeParse(value)
    if (!read.success) return read.error.issues[0]?.message ?? 'not allowed'
    fine.get(column)?.add(value)
    return null
  }
}

/** A course while its rows are read. */
interface Gathered extends Omit<RosterCourse, 'classSections' | 'instructors' | 'duties'> {
  sections: { name: string; email: string }[]
  people: Map<string, Person & { duty: Duty | null; line: number }>
}

/** Takes one row's person into a course. A row without a duty says nothing of it. */
const takePerson = (
  course: Gathered | undefined,
  errors: RosterError[],
  person: Person & { duty: Duty | null; line: number },
): void => {
  if (!course) return
  const { email, duty, line } = person
  const known = course.people.get(email)
  if (known && duty !== null && known.duty !== null && known.duty !== duty)
    errors.push({
      line,
      column: 'duty',
      found: duty,
      reason: `${known.duty}, as line ${known.line} says of ${email} in the same course`,
    })
  const owner = [...course.people.values()].find((other) => other.duty === 'owner')
  if (duty === 'owner' && owner && owner.email !== email)
    errors.push({
      line,
      column: 'duty',
      found: duty,
      reason: `one owner for each course; line ${owner.line} names ${owner.email}`,
    })
  if (!known) course.people.set(email, person)
  else if (known.duty === null && duty !== null) Object.assign(known, { duty, line })
}

const courseOf = ({ sections, people, ...course }: Gathered, saysDuties: boolean): RosterCourse => {
  const all = [...people.values()].map(({ name, email, duty }) => ({
    name,
    email,
    duty: duty ?? 'instructor',
  }))
  const { instructors, assistants, owner } = peopleAsFacts(all)
  return {
    ...course,
    classSections: [...new Set(sections.map(({ name }) => name))],
    instructors,
    duties: saysDuties ? { owner: owner ?? null, assistants } : null,
  }
}

/**
 * Reads a roster file, in whatever way `readTable` reads tables. Rows with the same platform course id are one course with
 * several class sections.
 * @param making for rows without a platform course id: one course for each class section, or one that those of a course code,
 * term, session and modality share; its id is made from what the rows say, the same every time
 */
export const readRoster = (bytes: Uint8Array, making: MakeCourses | null = null): RosterReading => {
  const table = readTable(bytes, mostRows)
  if (!table.ok)
    return { courses: [], rows: 0, errors: [{ column: '', ...table.problems }], takenFor: 'UTF-8' }
  const { rows, takenFor } = table.value
  const [header, ...body] = rows
  if (!header) return wholeFile('nothing', `a header line: ${rosterColumns.join(', ')}`)
  const names = header.cells.map((name) => name.toLowerCase())
  const missing = rosterColumns.filter(
    (column) =>
      !mayBeLeftOut.includes(column) &&
      !(making && column === 'platform course id') &&
      !names.includes(column),
  )
  const unknown = names.filter((name) => !(rosterColumns as readonly string[]).includes(name))
  const errors: RosterError[] = [
    ...missing.map((column) => ({
      line: 1,
      column,
      found: 'nothing',
      reason: `the header must have the column ${column}`,
    })),
    ...unknown.map((column) => ({
      line: 1,
      column,
      found: column.slice(0, 60),
      reason: 'no such column; remove it or correct its name',
    })),
    ...names
      .filter((name, i) => names.indexOf(name) !== i)
      .map((column) => ({
        line: 1,
        column,
        found: column.slice(0, 60),
        reason: 'the column stands twice',
      })),
  ]
  if (errors.length > 0)
    return { courses: [], rows: body.length, errors: errors.slice(0, mostErrors), takenFor }

  const courses = new Map<string, Gathered>()
  const reasonNot = reasonsOf()
  const places = new Map(names.map((name, i) => [name, i]))
  for (const { cells, line } of body) {
    if (errors.length >= mostErrors) break
    if (cells.length !== names.length) {
      errors.push({
        line,
        column: '',
        found: `${cells.length} fields`,
        reason: `${names.length} fields, as in the header`,
      })
      continue
    }
    const given = (column: Column): string => cells[places.get(column) ?? -1] ?? ''
    const value = (column: Column): string =>
      column === 'platform course id' && making && given(column) === ''
        ? idMadeOf([
            given('term'),
            given('session'),
            given('code'),
            ...(making === 'each' ? [given('class section')] : [given('modality')]),
          ])
        : given(column)
    const wrong: RosterError[] = []
    for (const column of rosterColumns) {
      const reason = reasonNot(column, value(column))
      if (reason !== null) wrong.push({ line, column, found: value(column).slice(0, 80), reason })
    }
    if (wrong.length > 0) {
      errors.push(...wrong)
      continue
    }
    const email = value('instructor e-mail').toLowerCase()
    const section = { name: value('class section'), email, line }
    const known = courses.get(value('platform course id'))
    if (!known) {
      courses.set(value('platform course id'), {
        line,
        platformId: value('platform course id'),
        code: value('code'),
        title: value('title'),
        department: value('code').split(/[\s-]/)[0] ?? '',
        term: value('term'),
        session: value('session') || null,
        modality: value('modality') as RosterCourse['modality'],
        weeks: Number(value('weeks')),
        status: value('status') as RosterCourse['status'],
        classSectionKind: value('own or shared') as RosterCourse['classSectionKind'],
        sections: [section],
        people: new Map(),
      })
    } else {
      for (const [column, first] of [
        ['code', known.code],
        ['title', known.title],
        ['term', known.term],
        ['modality', known.modality],
        ['weeks', String(known.weeks)],
        ['status', known.status],
      ] as const)
        if (value(column) !== first)
          errors.push({
            line,
            column,
            found: value(column).slice(0, 80),
            reason: `${first}, as line ${known.line} says of the same course ${known.platformId}`,
          })
      if (known.sections.some((other) => other.name === section.name && other.email === email))
        errors.push({
          line,
          column: 'class section',
          found: section.name,
          reason: `the class section already stands for course ${known.platformId}${email === '' ? '' : ', with the same person'}`,
        })
      else known.sections.push(section)
    }
    if (email !== '')
      takePerson(known ?? courses.get(value('platform course id')), errors, {
        email,
        name: value('instructor name') || email,
        duty: (value('duty') || null) as Duty | null,
        line,
      })
  }
  const saysDuties = names.includes('duty')
  return {
    courses: [...courses.values()].map((course) => courseOf(course, saysDuties)),
    rows: body.length,
    errors: errors.slice(0, mostErrors),
    takenFor,
  }
}
