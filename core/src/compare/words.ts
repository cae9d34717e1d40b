import { z } from 'zod'
import { Offset, offsetWords } from '../calendar/index.ts'
import {
  Anchor,
  anchorWords,
  Grouping,
  Repeat,
  repeatWords,
  When,
  whenWords,
} from '../template/index.ts'

const titles: Readonly<Record<string, string>> = {
  kind: 'kind',
  name: 'named',
  courseName: 'courses named',
  courseLabel: 'labelled',
  repeat: 'repeats',
  position: 'place',
  span: 'span',
  when: 'only for',
  groupings: 'units in place of weeks',
  acceptsInstead: 'what may stand in for it',
  inGroup: 'in a unit, wanted',
  url: 'leads to',
  basis: 'rests on',
  assesses: 'assesses',
  objectives: 'objectives',
  audience: 'seen by',
  points: 'points',
  category: 'grade category',
  opens: 'opens',
  due: 'due',
  closes: 'shuts',
  rubric: 'rubric',
  attempts: 'attempts',
  minutes: 'time limit in minutes',
  graceMinutes: 'grace in minutes',
  notification: 'students told of posts',
  postFirst: 'post before reading',
  handIn: 'handed in',
  practice: 'practice only',
  published: 'published',
  appliesTo: 'applies to',
  units: 'units',
  opening: 'opening',
  availability: 'students reach it',
  opensDaysBefore: 'from days before the first',
  closesDaysAfter: 'until days after the last',
  follow: 'modules open',
  leadDays: 'days ahead',
  halfBuilt: 'half built',
  extends: 'built on',
  weighted: 'weighted',
  shown: 'scores',
  language: 'language',
  gradesShown: 'grades shown',
  joinByKey: 'joining by key',
  completionTracked: 'completion tracked',
  notices: 'notices by e-mail',
  anchor: 'which',
  omit: 'does not exist',
  leaveOut: 'goes without',
  set: 'differs in',
  form: 'form',
  mode: 'copied or linked',
  left: 'left to the instructor',
  hint: 'hint',
  example: 'example',
  lines: 'lines',
  scope: 'scope',
  type: 'type',
  minWords: 'words at least',
  maxWords: 'words at most',
  answer: 'answered',
  captions: 'captions',
  transcript: 'transcript',
  works: 'works',
  header: 'headers',
  rows: 'rows',
  caption: 'caption',
  links: 'links',
  image: 'image',
  houseText: 'house text',
  kept: 'kept block',
  of: 'dates of',
  element: 'element of the home page',
  answers: 'classmates to answer',
  firstBy: 'first post by',
  answersBy: 'answers by',
}

const LeftWords = z.looseObject({ as: z.enum(['proposed', 'asked']) })
const leftWords = { proposed: 'as a proposal', asked: 'as something asked for' }

/** A value of a template's field in words a reader knows. */
export const valueWords = (field: string, value: unknown): string => {
  if (value === undefined || value === null || value === '') return 'nothing'
  const as = <T>(schema: z.ZodType<T>, words: (value: T) => string): string | null => {
    const read = schema.safeParse(value)
    return read.success ? words(read.data) : null
  }
  const known =
    field === 'repeat'
      ? as(Repeat, repeatWords)
      : field === 'when'
        ? as(When, whenWords)
        : field === 'anchor'
          ? as(Anchor, anchorWords)
          : field === 'groupings'
            ? as(Grouping, ({ min, max, name }) => `${min} to ${max} units, named ${name}`)
            : field === 'opens' || field === 'due' || field === 'closes'
              ? as(Offset, offsetWords)
              : null
  if (known !== null) return known
  if (field === 'left') return as(LeftWords, ({ as: way }) => leftWords[way]) ?? 'nothing'
  if (typeof value === 'boolean') return value ? 'yes' : 'no'
  if (Array.isArray(value))
    return value.length === 0
      ? 'nothing'
      : value.every((entry) => typeof entry !== 'object')
        ? value.join(', ')
        : `${value.length} of them`
  if (typeof value === 'object') {
    const inner = Object.entries(value).filter(
      ([, one]) => one !== undefined && !(Array.isArray(one) && one.length === 0),
    )
    return inner.length === 0
      ? 'nothing'
      : inner.map(([name, one]) => `${titles[name] ?? name} ${valueWords(name, one)}`).join(', ')
  }
  return String(value).replaceAll('-', field === 'name' || field === 'url' ? '-' : ' ')
}

/** One change of a field in words, e.g. `now may` for a strength, `due: nothing, now the last day of its week`. */
export const fieldWords = (field: string, before: unknown, after: unknown): string => {
  if (field === 'strength') return `now ${valueWords(field, after)}`
  const title = titles[field] ?? field
  if (before === undefined || before === null || (Array.isArray(before) && before.length === 0))
    return `${title} ${valueWords(field, after)}`
  if (after === undefined || after === null || (Array.isArray(after) && after.length === 0))
    return `${title} ${valueWords(field, before)} no longer`
  return `${title} ${valueWords(field, before)}, now ${valueWords(field, after)}`
}
