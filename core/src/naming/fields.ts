/** What a field's value is, and so how it is written and read. */
export type FieldType = 'text' | 'integer' | 'date' | 'range' | 'choice'

export interface FieldDefinition {
  type: FieldType
  /** What of: a course's facts, the module's place in the calendar, or the item itself. */
  of: 'course' | 'module' | 'item'
  title: string
  /** Shown where the value is still wanted; its presence makes the field one that instructors fill. */
  prompt?: string
  /** How it is written when the format gives no style. */
  style?: string
}

/** Every field a naming format may use. A new field is one entry here. */
export const fields = {
  code: { type: 'text', of: 'course', title: 'course code' },
  title: { type: 'text', of: 'course', title: 'course title' },
  term: { type: 'text', of: 'course', title: 'term' },
  year: { type: 'integer', of: 'course', title: "year of the term's first day" },
  classSection: { type: 'text', of: 'course', title: 'class sections' },
  instructor: { type: 'text', of: 'course', title: 'instructor', prompt: 'instructor' },
  modality: { type: 'text', of: 'course', title: 'modality' },
  number: { type: 'integer', of: 'module', title: 'number among its kind' },
  week: { type: 'integer', of: 'module', title: 'week number' },
  unit: { type: 'integer', of: 'module', title: 'unit number' },
  day: { type: 'integer', of: 'module', title: 'day number' },
  dates: { type: 'range', of: 'module', title: 'first to last day', style: 'MMM d – MMM d' },
  start: { type: 'date', of: 'module', title: 'first day', style: 'MMM d' },
  end: { type: 'date', of: 'module', title: 'last day', style: 'MMM d' },
  topic: { type: 'text', of: 'module', title: 'topic', prompt: 'topic' },
  kind: { type: 'choice', of: 'item', title: 'kind of item', prompt: 'kind' },
  minutes: { type: 'integer', of: 'item', title: 'length in minutes', prompt: 'minutes' },
  points: { type: 'integer', of: 'item', title: 'points' },
  due: { type: 'date', of: 'item', title: 'due date', style: 'MMM d' },
} as const satisfies Record<string, FieldDefinition>

export type FieldName = keyof typeof fields
export const isFieldName = (name: string): name is FieldName => Object.hasOwn(fields, name)
export const definitionOf = (name: FieldName): FieldDefinition => fields[name]

/** A value: text or choice as text, an integer, a date `YYYY-MM-DD`, or a range of two dates. */
export type FieldValue = string | number | { first: string; last: string }
export type FieldValues = Partial<Record<FieldName, FieldValue>>
