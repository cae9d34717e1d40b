import { failure, success, type Result } from '../document/index.ts'
import type { Anchor, May, Repeat, When } from './part.ts'

/** A repeat in words, e.g. `each week, 2 to 15, not 8`. */
export const repeatWords = (repeat: Repeat | undefined): string => {
  if (!repeat) return ''
  const except = repeat.except.length > 0 ? `, not ${repeat.except.join(', ')}` : ''
  if (repeat.per === 'times') return `${repeat.times ?? 1} times${except}`
  const range =
    repeat.from !== undefined || repeat.to !== undefined
      ? `, ${repeat.from ?? 1} to ${repeat.to ?? 'last'}`
      : ''
  const even = repeat.every === 2 && (repeat.from ?? 2) % 2 === 0
  const often =
    repeat.every === 1
      ? `each ${repeat.per}`
      : even
        ? `even ${repeat.per}s`
        : `every ${repeat.every} ${repeat.per}s`
  return `${often}${even && repeat.from === 2 && repeat.to === undefined ? '' : range}${except}`
}

/** Which repetition an exception is about, in words. */
export const anchorWords = (anchor: Anchor): string =>
  anchor.at === 'number'
    ? `number ${anchor.number}`
    : {
        first: 'the first',
        last: 'the last',
        'last-of-unit': 'the last of each unit',
        pause: 'the pause week',
      }[anchor.at]

/** A condition in words, e.g. `online or hybrid; 15 to 16 weeks`. */
export const whenWords = (when: When | undefined): string =>
  when
    ? [
        when.modalities?.join(' or ').replaceAll('on-campus', 'on campus'),
        when.weeks &&
          (when.weeks.from === when.weeks.to
            ? `${when.weeks.from} weeks`
            : `${when.weeks.from} to ${when.weeks.to} weeks`),
        when.departments?.join(' or '),
        when.classSections &&
          {
            own: 'the college’s own class sections',
            shared: 'class sections shared between colleges',
          }[when.classSections],
      ]
        .filter(Boolean)
        .join('; ')
    : ''

/** Why words could not be read, and what could be written instead. */
export interface WordsProblem {
  message: string
}

const units: Readonly<Record<string, Repeat['per']>> = {
  week: 'week',
  weeks: 'week',
  unit: 'unit',
  units: 'unit',
  day: 'day',
  days: 'day',
  half: 'half',
  halves: 'half',
  halfs: 'half',
}
const examples =
  'each week · each week, 2 to 15 · even weeks · each week, not 8 · each unit · 3 times'

/** Sixty weeks, each left out by its number, are shorter. */
const longestRepeat = 400

/**
 * Reads a repeat as `repeatWords` writes it, and as people shorten it: `weekly`, `each week 2-15`, `odd weeks`.
 * Nothing gives null: the part does not repeat.
 */
export const parseRepeat = (text: string): Result<Repeat | null, WordsProblem> => {
  let words = text.trim().toLowerCase().replace(/[–—]/g, '-').replace(/\s+/g, ' ')
  if (words === '' || words === 'once' || words === 'never') return success(null)
  const notUnderstood = failure<WordsProblem>({ message: `a repeat such as: ${examples}` })
  if (words.length > longestRepeat) return notUnderstood
  words = words
    .replace(/^weekly/, 'each week')
    .replace(/^daily/, 'each day')
    .replace(/^(every|per) (?=week|unit|day|half)/, 'each ')
    .replace(/^every other (\w+?)s?\b/, 'even $1s')
    .replace(/^twice\b/, '2 times')
    .replace(/^× ?(\d+)|^(\d+) ?×/, '$1$2 times')
  const except: number[] = []
  words = words.replace(
    /,? ?(?:not|except|but not)(?: in)?(?: weeks?| units?| days?)? ((?:\d+(?:, ?| and | )?)+)/,
    (_, list: string) => {
      except.push(...(list.match(/\d+/g) ?? []).map(Number))
      return ''
    },
  )
  let range: { from?: number; to?: number } = {}
  words = words.replace(
    /,? ?(?:from )?(\d+) ?(?:to|-|until) ?(\d+|last)/,
    (_, from: string, to: string) => {
      range = { from: Number(from), ...(to === 'last' ? {} : { to: Number(to) }) }
      return ''
    },
  )
  words = words.replace(/,? ?from (\d+)(?: on)?/, (_, from: string) => {
    range = { from: Number(from) }
    return ''
  })
  const last = words.trim().replace(/,$/, '')
  const made = (
    repeat: Pick<Repeat, 'per' | 'every'> & Partial<Repeat>,
  ): Result<Repeat | null, WordsProblem> => {
    if (range.from !== undefined && range.to !== undefined && range.from > range.to)
      return failure({ message: `a range that goes up: ${range.to} to ${range.from}` })
    if ([range.from ?? 0, range.to ?? 0, ...except].some((number) => number > 60))
      return failure({ message: 'numbers up to 60' })
    return success({ ...repeat, ...range, except })
  }
  const times = /^(\d+) times$/.exec(last)
  if (times) {
    const count = Number(times[1])
    return count >= 1 && count <= 60
      ? made({ per: 'times', every: 1, times: count })
      : failure({ message: 'from 1 to 60 times' })
  }
  const simple = /^each (\w+)$/.exec(last)
  const per = simple ? units[simple[1] ?? ''] : undefined
  if (per) return made({ per, every: 1 })
  const stepped = /^(even|odd|every (\d+)(?:nd|rd|th)?) (\w+)$/.exec(last)
  const steppedPer = stepped ? units[stepped[3] ?? ''] : undefined
  if (stepped && steppedPer) {
    const every = stepped[2] ? Number(stepped[2]) : 2
    if (every < 1 || every > 20) return failure({ message: 'every 2 to every 20' })
    if (stepped[1] === 'odd') range = { from: 1, ...range }
    return made({ per: steppedPer, every })
  }
  return notUnderstood
}

const anchors: readonly (readonly [RegExp, Anchor])[] = [
  [/^(the )?first( week| unit| day| one)?$/, { at: 'first' }],
  [/^(the )?last( week| unit| day| one)?$/, { at: 'last' }],
  [
    /^(the )?(last of (each|its|the) unit|end of (each |the )?unit|unit end)$/,
    { at: 'last-of-unit' },
  ],
  [/^(the |in the )?(pause|pause week|break|break week)$/, { at: 'pause' }],
]
/** Reads which repetition an exception is about, as `anchorWords` writes it. */
export const parseAnchor = (text: string): Result<Anchor, WordsProblem> => {
  const words = text.trim().toLowerCase().replace(/\s+/g, ' ')
  const number = /^(?:number|week|unit|day|no\.?)? ?(\d{1,2})$/.exec(words)
  if (number && Number(number[1]) <= 60) return success({ at: 'number', number: Number(number[1]) })
  const known = anchors.find(([pattern]) => pattern.test(words))
  return known
    ? success(known[1])
    : failure({
        message: 'one of: the first, the last, number 8, the last of each unit, the pause week',
      })
}

export const permissions = ['rename', 'edit', 'remove', 'duplicate', 'move'] as const
/** What instructors may do, in words. */
export const mayWords = (may: May): string =>
  permissions.filter((permission) => may[permission]).join(', ')
/** Reads what instructors may do; nothing or `nothing` allows nothing, `all` everything. */
export const parseMay = (text: string): Result<May, WordsProblem> => {
  const words = text.toLowerCase().match(/\p{L}+/gu) ?? []
  const said: readonly string[] = words
  if (said.join() === 'all' || said.join() === 'everything')
    return success(Object.fromEntries(permissions.map((permission) => [permission, true])))
  const unknown = said.find(
    (word) =>
      word !== 'and' &&
      word !== 'nothing' &&
      !permissions.some((permission) => permission === word),
  )
  if (unknown !== undefined)
    return failure({ message: `any of ${permissions.join(', ')}; all; or nothing` })
  return success(
    Object.fromEntries(
      permissions
        .filter((permission) => said.includes(permission))
        .map((permission) => [permission, true]),
    ),
  )
}
