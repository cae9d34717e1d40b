import { sameValue, type FieldStep } from '../mergeCase.ts'
import { courseValue } from './standing.ts'
import type { Undoing } from './undoing.ts'

/** Fields of the course itself go back, but for what was edited since. */
export const courseBack = ({ changes, course, idNow, record, standsNow, steps }: Undoing): void => {
  const fields: FieldStep[] = []
  const set: Record<string, unknown> = {}
  const write = (field: string, was: unknown): void => {
    if (field === 'navigation')
      changes.push({
        change: 'set-navigation',
        navigation: was as { label: string; hidden: boolean }[],
      })
    else if (field !== 'homePage') set[field] = was
    else if (typeof was === 'string' && standsNow(was))
      changes.push({ change: 'set-home', item: idNow(was) ?? was })
  }
  for (const [field, { before: was, after }] of Object.entries(record.course)) {
    const present = courseValue(course, field)
    const untouched = sameValue(present, after)
    if (untouched) write(field, was)
    fields.push({
      field,
      does: untouched ? 'change' : 'keep',
      base: after,
      present,
      wanted: was,
      result: untouched ? was : present,
      decided: null,
      reason: untouched ? 'as it was before the rollout' : 'was edited since; stays',
    })
  }
  if (Object.keys(set).length > 0) changes.push({ change: 'set-course', ...set })
  if (fields.length > 0)
    steps.push({
      does: fields.some(({ does }) => does === 'change') ? 'set' : 'keep',
      instance: 'course',
      part: 'course',
      kind: 'course',
      name: course.name,
      into: null,
      opensAt: null,
      dueAt: null,
      reason: 'the course itself',
      fields,
    })
}
