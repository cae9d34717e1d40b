import { z } from 'zod'
import { Offset, offsetWords } from '../calendar/index.ts'
import {
  Anchor,
  anchorWords,
  Grouping,
  ItemFile,
  Repeat,
  repeatWords,
  When,
  whenWords,
  htmlFields,
  firstWords,
} from '../template/index.ts'
import { houseColourWords } from '../houseStyle/index.ts'
import type { Called } from './called.ts'

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
  file: 'file',
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
  minutes: 'minutes',
  where: 'held at',
  graceMinutes: 'grace in minutes',
  notification: 'students told of posts',
  postFirst: 'post before reading',
  handIn: 'handed in',
  practice: 'practice only',
  shuffled: 'questions shuffled',
  answersShown: 'right answers shown',
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
  seenBy: 'who may see it',
  arranged: 'contents arranged',
  picture: 'picture',
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
  links: 'leads to',
  label: 'heading',
  html: 'text',
  earlierPrompts: 'earlier prompts',
  prompt: 'prompt',
  fileName: 'file',
  alternativeText: 'described as',
  licence: 'licence',
  weight: 'weight',
  counts: 'counts in the grade',
  hidden: 'hidden',
  criteria: 'criteria',
  parameters: 'set to',
  strength: 'strength',
  image: 'image',
  houseText: 'house text',
  kept: 'kept block',
  of: 'dates of',
  element: 'element of the home page',
  beside: 'beside the text',
  card: 'on a card',
  portrait: 'portrait',
  signed: 'signed',
  above: 'line above the title',
  as: 'shown as',
  about: 'what is found there',
  houseStyle: 'house style',
  frameHosts: 'shown within pages from',
  shape: 'shape',
  headings: 'headings',
  rules: 'lines across',
  corners: 'corners',
  ...Object.fromEntries(
    Object.entries(houseColourWords).map(([name, words]) => [name, `colour of ${words}`]),
  ),
  answers: 'classmates to answer',
  firstBy: 'first post by',
  answersBy: 'answers by',
}

const LeftWords = z.looseObject({ as: z.enum(['proposed', 'asked']) })
const leftWords = { proposed: 'as a proposal', asked: 'as something asked for' }

/** What leads somewhere, is read or is heard, as people name it. */
const Named = z.looseObject({ text: z.string(), to: z.string().optional() })
const SetInException = z.looseObject({ part: z.string() })

/**
 * A value of a template's field in words a reader knows: what it names by a key is called what people call it, HTML is
 * quoted by its first words.
 */
export const valueWords = (field: string, value: unknown, called: Called): string => {
  if (value === undefined || value === null || value === '') return 'nothing'
  const known = field === 'file' ? fileWords(value, called) : knownWords(field, value)
  if (known !== null) return known
  if (typeof value === 'boolean') return value ? 'yes' : 'no'
  if (Array.isArray(value))
    return value.length === 0
      ? 'nothing'
      : value.map((entry: unknown) => entryWords(field, entry, called)).join(', ')
  if (typeof value === 'object') {
    const inner = Object.entries(value).filter(
      ([name, one]) =>
        name !== 'key' && one !== undefined && !(Array.isArray(one) && one.length === 0),
    )
    return inner.length === 0
      ? 'nothing'
      : inner
          .map(([name, one]) => `${titles[name] ?? name} ${valueWords(name, one, called)}`)
          .join(', ')
  }
  const text = String(value)
  if (htmlFields.has(field) || field === 'example') return `“${firstWords(text)}”`
  return called(field, text) ?? (free.has(field) ? text : text.replaceAll('-', ' '))
}

/** Fields that hold what somebody wrote, hyphens and all. */
const free = new Set([
  'frameHosts',
  'name',
  'url',
  'text',
  'title',
  'label',
  'prompt',
  'category',
  'basis',
])

/** One of several in a field. */
const entryWords = (field: string, entry: unknown, called: Called): string => {
  const set = field === 'set' ? SetInException.safeParse(entry) : null
  if (set?.success) {
    const { part, ...others } = set.data
    return `${called('part', part) ?? 'a part'} (${valueWords('', others, called)})`
  }
  const named = Named.safeParse(entry)
  if (!named.success) return valueWords(field, entry, called)
  const { text, to } = named.data
  return `“${text}”${to === undefined ? '' : ` to ${called('to', to) ?? 'a part'}`}`
}

const leftFileWords = { proposed: ', which may be replaced', theirs: ', to be filled in' }
/** Which file a part hands out, in words. */
const fileWords = (value: unknown, called: Called): string | null =>
  as(
    ItemFile,
    ({ key, left }) =>
      key === undefined
        ? 'one of the instructor’s own'
        : `“${called('file', key) ?? key}”${left ? leftFileWords[left] : ''}`,
    value,
  )

const as = <T>(schema: z.ZodType<T>, words: (value: T) => string, value: unknown) => {
  const read = schema.safeParse(value)
  return read.success ? words(read.data) : null
}
/** Words for what has words of its own; null for anything else. */
const knownWords = (field: string, value: unknown): string | null => {
  switch (field) {
    case 'repeat':
      return as(Repeat, repeatWords, value)
    case 'when':
      return as(When, whenWords, value)
    case 'anchor':
      return as(Anchor, anchorWords, value)
    case 'groupings':
      return as(Grouping, ({ min, max, name }) => `${min} to ${max} units, named ${name}`, value)
    case 'opens':
    case 'due':
    case 'closes':
      return as(Offset, offsetWords, value)
    case 'left':
      return as(LeftWords, ({ as: way }) => leftWords[way], value)
    default:
      return null
  }
}

/** Names of what a field names by its key, in the version before and in the one after. */
export interface CalledThenAndNow {
  before: Called
  after: Called
}

/** One change of a field in words, e.g. `now may` for a strength, `due: nothing, now the last day of its week`. */
export const fieldWords = (
  field: string,
  before: unknown,
  after: unknown,
  called: CalledThenAndNow,
): string => {
  const is = () => valueWords(field, after, called.after)
  const was = () => valueWords(field, before, called.before)
  if (field === 'strength') return `now ${is()}`
  const title = titles[field] ?? field
  if (isNothing(before)) return `${title} ${is()}`
  if (isNothing(after)) return `${title} ${was()} no longer`
  // The same in words, though not in every detail.
  return was() === is() ? `${title} changed: ${is()}` : `${title} ${was()}, now ${is()}`
}

const isNothing = (value: unknown): boolean =>
  value === undefined || value === null || (Array.isArray(value) && value.length === 0)
