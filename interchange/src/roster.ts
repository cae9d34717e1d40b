import { z } from 'zod'
import { isLine, modalities } from '@wickerframe/core'
import { readTable, type Encoding } from './tableFile.ts'

/** The columns of a roster file, in any order; session may be left out. One row is one class section. */
export const rosterColumns = [
  'code',
  'title',
  'term',
  'session',
  'class section',
  'own or shared',
  'instructor e-mail',
  'instructor name',
  'modality',
  'weeks',
  'platform course id',
  'status',
] as const
type Column = (typeof rosterColumns)[number]

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
  instructors: { name: string; email: string }[]
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
      column !== 'session' &&
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

  const courses = new Map<string, RosterCourse>()
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
    const given = (column: Column): string => cells[names.indexOf(column)] ?? ''
    const value = (column: Column): string =>
      column === 'platform course id' && making && given(column) === ''
        ? idMadeOf([
            given('term'),
            given('session'),
            given('code'),
            ...(making === 'each' ? [given('class section')] : [given('modality')]),
          ])
        : given(column)
    const wrong = rosterColumns.flatMap((column): RosterError[] => {
      const read = columns[column].safeParse(value(column))
      return read.success
        ? []
        : [
            {
              line,
              column,
              found: value(column).slice(0, 80),
              reason: read.error.issues[0]?.message ?? 'not allowed',
            },
          ]
    })
    if (wrong.length > 0) {
      errors.push(...wrong)
      continue
    }
    const email = value('instructor e-mail').toLowerCase()
    const person = email === '' ? [] : [{ email, name: value('instructor name') || email }]
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
        classSections: [value('class section')],
        instructors: person,
      })
      continue
    }
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
    if (known.classSections.includes(value('class section')))
      errors.push({
        line,
        column: 'class section',
        found: value('class section'),
        reason: `the class section already stands for course ${known.platformId}`,
      })
    else known.classSections.push(value('class section'))
    for (const instructor of person)
      if (!known.instructors.some((other) => other.email === instructor.email))
        known.instructors.push(instructor)
  }
  return {
    courses: [...courses.values()],
    rows: body.length,
    errors: errors.slice(0, mostErrors),
    takenFor,
  }
}
