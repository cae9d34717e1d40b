import { navigationWords, targetIn } from '../../template/index.ts'
import { sameValue, type FieldStep } from '../mergeCase.ts'
import { ledToCreated, type Navigation } from '../navigation.ts'
import { courseValue } from './standing.ts'
import type { Undoing } from './undoing.ts'

const inQuotes = (name: string | null): string | null => (name === null ? null : `“${name}”`)

/** Fields of the course itself go back, but for what was edited since. */
export const courseBack = ({
  changes,
  course,
  idNow,
  nameOf,
  record,
  remade,
  standsNow,
  steps,
}: Undoing): void => {
  const led = ({ to, ...entry }: Navigation[number]): Navigation[number] => {
    const id = targetIn('item', to)
    if (to === undefined || (id !== null && !standsNow(id))) return entry
    return { ...entry, to: id === null ? to : `item:${idNow(id) ?? id}` }
  }
  const fields: FieldStep[] = []
  const set: Record<string, unknown> = {}
  const write = (field: string, was: unknown): void => {
    if (field === 'navigation')
      changes.push({ change: 'set-navigation', navigation: (was as Navigation).map(led) })
    else if (field !== 'homePage') set[field] = was
    else if (typeof was === 'string' && standsNow(was))
      changes.push({ change: 'set-home', item: idNow(was) ?? was })
  }
  for (const [field, { before: was, after }] of Object.entries(record.course)) {
    const present = courseValue(course, field)
    const untouched = sameValue(present, after)
    if (untouched) write(field, was)
    const told = (value: unknown): unknown =>
      field === 'navigation' && Array.isArray(value)
        ? navigationWords(value as Navigation, (id) => inQuotes(nameOf(id)))
        : value
    fields.push({
      field,
      does: untouched ? 'change' : 'keep',
      base: told(after),
      present: told(present),
      wanted: told(was),
      result: told(untouched ? was : present),
      decided: null,
      reason: untouched ? 'as it was before the rollout' : 'was edited since; stays',
    })
  }
  // Where somebody leads to what comes back under a new id, it leads there again.
  const relinked = ledToCreated(course.navigation, (id) => (remade.has(id) ? idNow(id) : null))
  if (relinked && !changes.some(({ change }) => change === 'set-navigation'))
    changes.push({ change: 'set-navigation', navigation: relinked })
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
