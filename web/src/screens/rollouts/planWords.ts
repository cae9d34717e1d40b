import {
  countOfKind,
  formatDate,
  kindWords,
  localDateOf,
  localTimeOf,
  type Consequence,
  type FieldStep,
  type PlanStep,
  type ShapeLine,
} from '@wickerframe/core'
import { plural } from '../../controls/controls.tsx'

/** What is done, as a verb of the plan. */
export const doesWords: Record<PlanStep['does'] | FieldStep['does'], string> = {
  create: 'create',
  change: 'change',
  move: 'move',
  adopt: 'take as it is',
  keep: 'keep',
  remove: 'remove',
  conflict: 'decide',
  set: 'set',
  restore: 'restore',
  leave: 'leave',
  agree: 'agrees',
}

const fieldNames: Readonly<Record<string, string>> = {
  name: 'name',
  label: 'label',
  published: 'whether students see it',
  staffOnly: 'for staff only',
  opensAt: 'opening',
  dueAt: 'due date',
  closesAt: 'closing',
  points: 'points',
  category: 'grade category',
  target: 'where it leads',
  rubric: 'rubric',
  place: 'place',
  timeZone: 'time zone',
  navigation: 'navigation',
  grading: 'grade scheme',
  home: 'home page',
  homePage: 'home page',
  page: 'page',
  settings: 'settings',
  questions: 'questions',
  file: 'file',
}
/**
 * A field in words; a block is told by its first words.
 * @param block those words, see `blockWords`; empty where it has none
 */
export const fieldWords = (field: string, block = ''): string => {
  if (field.startsWith('question:')) return block === '' ? 'a question' : `the question “${block}”`
  if (field.startsWith('block:')) return block === '' ? 'a block of the page' : `“${block}”`
  const [name = '', inner] = field.split('.', 2)
  return inner === undefined
    ? (fieldNames[name] ?? name)
    : inner.replace(/[A-Z]/g, (letter) => ` ${letter.toLowerCase()}`)
}

/** What a line of a shape is about: “the page “Welcome””, “16 assessments such as “Quiz 1””. */
export const partWords = ({ part, kind, name, count }: ShapeLine): string =>
  part === 'course'
    ? 'the course'
    : count > 1
      ? `${countOfKind(count, kind)} such as “${name}”`
      : `the ${kindWords(kind)} “${name}”`

/** One line of a shape: “the due date of 16 assessments such as “Quiz 1””. */
export const lineWords = (line: ShapeLine): string => {
  if (line.field === null) return partWords(line)
  const field = fieldWords(line.field, line.words)
  return line.part === 'course' ? field : `${field} of ${partWords(line)}`
}

/** @param most whether it is told of many courses: the count is that of the course with the most */
export const consequenceWords = ({ code, count, example }: Consequence, most = false): string => {
  const some = (noun: string): string => `${most ? 'up to ' : ''}${plural(count, noun)}`
  const told = {
    shortened: `${some('page')} somebody wrote in would lose half of ${count === 1 ? 'its' : 'their'} words or more: ${example}`,
    'new-names': `Students will see ${some('new name')} in their lists and calendars, such as ${example}`,
    'new-dates': `${some('due date')} that students know will move, such as that of “${example}”`,
    'student-work': `${some('item')} in which students have work ${count === 1 ? 'is' : 'are'} left alone, such as “${example}”`,
    'past-last-day': `${some('due date')} would lie past the last day, such as that of “${example}”`,
    'dates-in-prose': `${some('text')} that ${count === 1 ? 'comes' : 'come'} along ${count === 1 ? 'names' : 'name'} dates of the earlier term, such as “${example}”`,
    'old-term': `${some('text')} that ${count === 1 ? 'comes' : 'come'} along ${count === 1 ? 'names' : 'name'} the earlier term, such as “${example}”`,
    'dates-to-set': `${some('item')} that ${count === 1 ? 'comes' : 'come'} along ${count === 1 ? 'has' : 'have'} no dates yet, such as “${example}”`,
    'attest-again': `${some('outside tool')} ${count === 1 ? 'has' : 'have'} to be paired and attested for the new term, such as “${example}”`,
    'left-behind': `${some('item')} of the earlier course ${count === 1 ? 'stays' : 'stay'} there, as ${count === 1 ? 'its place is' : 'their places are'} hidden`,
    'not-chosen': `${some('thing')} of theirs ${count === 1 ? 'is' : 'are'} of a kind that was not chosen and ${count === 1 ? 'stays' : 'stay'} in the earlier course, such as ${example}`,
    'words-left': `${some('text')} of theirs ${count === 1 ? 'stands' : 'stand'} where the template has its own words and ${count === 1 ? 'stays' : 'stay'} in the earlier course, such as ${example}`,
    'no-place': `${some('thing')} of theirs ${count === 1 ? 'has' : 'have'} no place in the new course and ${count === 1 ? 'stays' : 'stay'} in the earlier one, such as ${example}`,
    'answers-together': `${some('set of answers')} could not be told apart and ${count === 1 ? 'comes' : 'come'} in one piece, such as ${example}`,
    'dead-links': `${some('page')} would link to something that is not in the course, such as “${example}”`,
  }[code]
  return told.charAt(0).toUpperCase() + told.slice(1)
}

const isInstant = /^\d{4}-\d\d-\d\dT\d\d:\d\d/
/** A value as people read it: instants in the course's zone, true and false in words. */
export const valueWords = (value: unknown, timeZone: string): string => {
  if (value === null || value === undefined || value === '') return 'nothing'
  if (value === true) return 'yes'
  if (value === false) return 'no'
  if (typeof value === 'string') return isInstant.test(value) ? localWords(value, timeZone) : value
  if (Array.isArray(value))
    return value
      .map((entry) =>
        typeof entry === 'object' && entry !== null && 'label' in entry
          ? `${String(entry.label)}${'hidden' in entry && entry.hidden === true ? ' (hidden)' : ''}`
          : String(entry),
      )
      .join(', ')
  if (typeof value === 'object' && 'title' in value) return String(value.title)
  // A file, by what it is called.
  if (typeof value === 'object' && 'content' in value && 'name' in value)
    return `“${String(value.name)}”`
  if (typeof value === 'object' && 'categories' in value && Array.isArray(value.categories))
    return (value.categories as { name: string; weight?: number }[])
      .map(
        (category) =>
          `${category.name}${category.weight === undefined ? '' : ` ${category.weight} %`}`,
      )
      .join(', ')
  return typeof value === 'object' ? JSON.stringify(value) : String(value)
}
export const localWords = (instant: string, timeZone: string): string =>
  `${formatDate(localDateOf(instant, timeZone), 'MMM d')}, ${localTimeOf(instant, timeZone)}`

/** Totals over many courses: how many parts are created, changed … */
export const totalsOf = (
  groups: readonly { lines: readonly ShapeLine[]; courses: number }[],
): { does: ShapeLine['does']; count: number }[] => {
  const totals = new Map<ShapeLine['does'], number>()
  for (const { lines, courses } of groups)
    for (const line of lines)
      totals.set(line.does, (totals.get(line.does) ?? 0) + line.count * courses)
  const order: ShapeLine['does'][] = [
    'create',
    'set',
    'change',
    'restore',
    'move',
    'adopt',
    'remove',
    'conflict',
    'keep',
    'leave',
  ]
  return order.flatMap((does) => (totals.has(does) ? [{ does, count: totals.get(does) ?? 0 }] : []))
}

/**
 * “15 courses would leave the Distance Standard”, for each template that is left.
 * @param left for each course the title of the template it stands under, where it would come under another
 */
export const leavingWords = (left: readonly (string | null)[]): string[] => {
  const counts = new Map<string, number>()
  for (const title of left) if (title !== null) counts.set(title, (counts.get(title) ?? 0) + 1)
  return [...counts].map(
    ([title, count]) =>
      `${plural(count, 'course')} would leave ${/^the /i.test(title) ? '' : 'the '}${title}`,
  )
}
