import { weekdays } from '@wickerframe/core'
import { readTable, type Encoding } from './tableFile.ts'

/** What a row of a table says of one course beside its roster. Only what the row says is there. */
export interface CourseValuesRow {
  line: number
  /** Platform course id, or course code and class section. */
  course: string
  room?: string
  meetingDays?: (typeof weekdays)[number][]
  /** Topic of a week, by its number. */
  topics: Record<string, string>
  units: { number: number; firstWeek: number; lastWeek: number }[]
  instructor?: { email: string; name: string }
}

export interface CourseValuesError {
  line: number
  column: string
  found: string
  reason: string
}

const known =
  /^(?:course|room|meeting days|instructor e-mail|instructor name|topic \d{1,2}|unit \d{1,2})$/
export const courseValuesColumns =
  'course, room, meeting days, instructor e-mail, instructor name, topic 1 … topic 60, unit 1 … unit 60'
const mostRows = 10_000

const dayOf = (word: string): (typeof weekdays)[number] | null =>
  weekdays.find((day) => word.length >= 2 && day.startsWith(word.toLowerCase())) ?? null

/**
 * Reads a table of values for courses, pasted from a spreadsheet or kept as a file: a header line, then a row for each course. An empty cell says nothing.
 */
export const readCourseValues = (
  bytes: Uint8Array,
): { rows: CourseValuesRow[]; errors: CourseValuesError[]; takenFor: Encoding } => {
  const table = readTable(bytes, mostRows)
  if (!table.ok) return { rows: [], errors: [{ column: '', ...table.problems }], takenFor: 'UTF-8' }
  const { takenFor } = table.value
  const [header, ...body] = table.value.rows
  if (!header)
    return {
      rows: [],
      errors: [
        { line: 1, column: '', found: 'nothing', reason: `a header line: ${courseValuesColumns}` },
      ],
      takenFor,
    }
  const names = header.cells.map((name) => name.toLowerCase())
  const errors: CourseValuesError[] = [
    ...(names.includes('course')
      ? []
      : [
          {
            line: 1,
            column: 'course',
            found: 'nothing',
            reason: 'the header must have the column course',
          },
        ]),
    ...names
      .filter((name) => !known.test(name))
      .map((column) => ({
        line: 1,
        column,
        found: column.slice(0, 60),
        reason: `no such column; there are ${courseValuesColumns}`,
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
  if (errors.length > 0) return { rows: [], errors, takenFor }
  const rows: CourseValuesRow[] = []
  for (const { cells, line } of body) {
    const row: CourseValuesRow = { line, course: '', topics: {}, units: [] }
    const wrong = (column: string, found: string, reason: string) =>
      errors.push({ line, column, found: found.slice(0, 80), reason })
    names.forEach((column, i) => {
      const value = cells[i] ?? ''
      if (value === '') return
      const number = Number(/\d+$/.exec(column)?.[0] ?? 0)
      if (column === 'course') row.course = value
      else if (value.length > 300) wrong(column, value, 'at most 300 characters')
      else if (column === 'room') row.room = value.slice(0, 100)
      else if (column === 'meeting days') {
        const words = value.split(/[\s,;/&]+/).filter(Boolean)
        const days = words.map(dayOf)
        if (days.some((day) => day === null))
          wrong(column, value, `weekdays: ${weekdays.join(', ')}`)
        else row.meetingDays = weekdays.filter((day) => days.includes(day))
      } else if (column === 'instructor e-mail') {
        if (!/^[^\s@]+@[^\s@]+\.[^\s@]+$/.test(value)) wrong(column, value, 'an e-mail address')
        else
          row.instructor = {
            email: value.toLowerCase(),
            name: cells[names.indexOf('instructor name')] || value,
          }
      } else if (column.startsWith('topic ')) {
        if (number < 1 || number > 60) wrong(column, value, 'a week from 1 to 60')
        else row.topics[String(number)] = value
      } else if (column.startsWith('unit ')) {
        const span = /^(\d{1,2})(?:\s*(?:-|–|to)\s*(\d{1,2}))?$/.exec(value)
        const [firstWeek, lastWeek] = [Number(span?.[1] ?? 0), Number(span?.[2] ?? span?.[1] ?? 0)]
        if (firstWeek < 1 || lastWeek < firstWeek || lastWeek > 60)
          wrong(column, value, 'the weeks it covers, as 1-4')
        else row.units.push({ number, firstWeek, lastWeek })
      }
    })
    if (row.course === '')
      wrong('course', '', 'which course: its platform course id, or code and class section')
    else rows.push(row)
  }
  return { rows, errors: errors.slice(0, 200), takenFor }
}
