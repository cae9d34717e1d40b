import { z } from 'zod'

/** What a field's value is, and so how it is written and read. */
export type FieldType =
  | 'text'
  | 'code'
  | 'term'
  | 'integer'
  | 'letter'
  | 'date'
  | 'range'
  | 'span'
  | 'choice'

export interface FieldDefinition {
  type: FieldType
  /** What of: a course's facts, the module's place in the calendar, or the item itself. */
  of: 'course' | 'module' | 'item'
  title: string
  /** Shown where the value is still wanted; its presence makes the field one that instructors fill. */
  prompt?: string
  /** Whether any words are right: they are the instructor's own. */
  own?: true
  /** How it is written when the format gives no style. */
  style?: string
}

/** Every field a naming format may use. A new field is one entry here. */
export const fields = {
  code: { type: 'code', of: 'course', title: 'course code' },
  title: { type: 'text', of: 'course', title: 'course title' },
  term: { type: 'term', of: 'course', title: 'term' },
  year: { type: 'integer', of: 'course', title: "year of the term's first day" },
  classSection: { type: 'text', of: 'course', title: 'class sections' },
  instructor: { type: 'text', of: 'course', title: 'instructor', prompt: 'instructor' },
  modality: { type: 'text', of: 'course', title: 'modality' },
  room: { type: 'text', of: 'course', title: 'room', prompt: 'room' },
  number: { type: 'integer', of: 'module', title: 'number among its kind' },
  week: { type: 'integer', of: 'module', title: 'week number' },
  half: {
    type: 'letter',
    of: 'module',
    title: 'half of the week, A or B, in a class that meets twice',
  },
  unit: { type: 'integer', of: 'module', title: 'unit number' },
  weeks: { type: 'span', of: 'module', title: 'first to last week of a unit' },
  day: { type: 'integer', of: 'module', title: 'number of the class day' },
  dates: { type: 'range', of: 'module', title: 'first to last day', style: 'MMM d – MMM d' },
  start: { type: 'date', of: 'module', title: 'first day', style: 'MMM d' },
  end: { type: 'date', of: 'module', title: 'last day', style: 'MMM d' },
  topic: { type: 'text', of: 'module', title: 'topic', prompt: 'topic', own: true },
  kind: { type: 'choice', of: 'item', title: 'kind of item', prompt: 'kind' },
  minutes: { type: 'integer', of: 'item', title: 'length in minutes', prompt: 'minutes' },
  points: { type: 'integer', of: 'item', title: 'points' },
  due: { type: 'date', of: 'item', title: 'due date', style: 'MMM d' },
} as const satisfies Record<string, FieldDefinition>

export type FieldName = keyof typeof fields
export const isFieldName = (name: string): name is FieldName => Object.hasOwn(fields, name)
export const definitionOf = (name: FieldName): FieldDefinition => fields[name]
export const fieldNames = Object.keys(fields) as FieldName[]

/** Two days `YYYY-MM-DD`, both included. */
export const DaySpan = z.strictObject({ first: z.string(), last: z.string() })
export type DaySpan = z.output<typeof DaySpan>
/** Two numbers, both included. */
export const NumberSpan = z.strictObject({ from: z.number(), to: z.number() })
export type NumberSpan = z.output<typeof NumberSpan>
/** A value: text, code, term, letter or choice as text; an integer; a date `YYYY-MM-DD`; two dates; two numbers. */
export const FieldValue = z.union([z.string(), z.number(), DaySpan, NumberSpan])
export type FieldValue = z.output<typeof FieldValue>
export const FieldValues = z.partialRecord(z.enum(fieldNames), FieldValue)
export type FieldValues = z.output<typeof FieldValues>

export const isDaySpan = (value: FieldValue | undefined): value is DaySpan =>
  typeof value === 'object' && 'first' in value
export const isNumberSpan = (value: FieldValue | undefined): value is NumberSpan =>
  typeof value === 'object' && 'from' in value
