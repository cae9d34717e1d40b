import { readFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import {
  formatOf,
  instructionalWeeks,
  renderName,
  occurrenceValues,
  occurrencesOf,
  unitStretches,
  type Facts,
  type FieldName,
  type FieldValues,
  type NamingFormat,
} from '@wickerframe/core'
import { terms } from './terms.ts'

/** One name of the corpus, with what it should have said. */
export interface CorpusName {
  /** Line of the file. */
  line: number
  format: NamingFormat
  facts: Facts
  /** What the fields should say where it stands. */
  values: FieldValues
  name: string
  /** The right name, or null where nobody could tell. */
  right: string | null
  /** Fields that are wrong or absent in the name; the others are right. */
  reading: Partial<Record<FieldName, 'wrong' | 'absent'>>
  heldBack: boolean
}

const termNamed = (code: string) => {
  const term = terms.find((term) => term.code === code)
  if (!term) throw new Error(`there is no term ${code}`)
  return term
}
const course = (code: string, title: string, term: string, more: Partial<Facts> = {}): Facts => ({
  schema: 'wickerframe.facts/1',
  code,
  title,
  department: code.slice(0, 3),
  modality: 'on-campus',
  weeks: 16,
  term: termNamed(term),
  classSections: ['01'],
  classSectionKind: 'own',
  instructors: [{ name: 'Sunniva Drake', email: 'sunniva.drake@kestrelsound.example' }],
  assistants: [],
  moduleOwners: {},
  topics: {},
  answers: {},
  meetingDays: ['tuesday', 'thursday'],
  ...more,
})
const workdays: Facts['meetingDays'] = ['monday', 'tuesday', 'wednesday', 'thursday', 'friday']

/** The courses that the groups of the corpus name. */
const courses: Readonly<Record<string, Facts>> = {
  nav110: course('NAV 110', 'Coastal Navigation', 'autumn-2026', {
    classSections: ['01', '02', '03', '04', '05', '06', '07', '08'],
  }),
  saf150: course('SAF 150', 'Liferaft & Flare Drill', 'autumn-2026', {
    weeks: 8,
    session: 'first-half',
    meetingDays: workdays,
    units: [
      { number: 1, firstWeek: 1, lastWeek: 4 },
      { number: 2, firstWeek: 5, lastWeek: 8 },
    ],
  }),
  osc240: course('OSC 240', 'Sea Ice', 'autumn-2026', {
    units: [1, 2, 3, 4].map((number) => ({
      number,
      firstWeek: number * 4 - 3,
      lastWeek: number * 4,
    })),
  }),
  osc101: course('OSC 101', 'Tides & Currents', 'autumn-2026'),
  men120: course('MEN 120', 'Diesel Propulsion I', 'autumn-2026'),
  gal115: course('GAL 115', 'Provisioning at Sea', 'autumn-2026'),
  hop215: course('HOP 215', 'Pilotage & Port Law', 'spring-2027', { weeks: 15 }),
  spring: course('NAV 220', 'Bridge Watchkeeping', 'spring-2027', { weeks: 15 }),
  summer: course('SAF 115', 'Deck Hand Work', 'summer-seven-2027', { weeks: 7 }),
  merged: course('NAV 140', 'Chartwork Studio', 'autumn-2026', { classSections: ['01', '02'] }),
}

/** Values of the fields at a place written as in the file: `w3 n2 kind=Lab`. */
const valuesAt = (facts: Facts, place: string): FieldValues => {
  const weeks = instructionalWeeks({ term: facts.term, session: facts.session, count: facts.weeks })
  const calendar = {
    weeks,
    units: facts.units ?? [],
    term: facts.term,
    meetingDays: facts.meetingDays ?? [],
  }
  const repeated = (per: 'week' | 'unit' | 'day' | 'half') =>
    occurrencesOf({ per, every: 1, except: [] }, calendar)
  const marks = place.split(' ')
  const at = (letter: string) =>
    Number(marks.find((mark) => new RegExp(`^${letter}\\d+$`).test(mark))?.slice(1))
  const half = marks.includes('hA') ? 'A' : marks.includes('hB') ? 'B' : null
  const occurrence = half
    ? repeated('half').find((entry) => entry.number === at('w') && entry.half?.half === half)
    : at('w')
      ? repeated('week').find(({ number }) => number === at('w'))
      : at('u') && !at('d')
        ? repeated('unit').find(({ number }) => number === at('u'))
        : at('d')
          ? repeated('day').find(({ number }) => number === at('d'))
          : undefined
  const values = occurrenceValues(
    facts,
    occurrence ?? { number: 0, ordinal: 0, weeks: [], unit: null, day: null, half: null },
  )
  if (!occurrence) delete values.number
  // A day counted within its unit.
  if (at('u') && at('d')) {
    const stretch = unitStretches(facts.units ?? [], weeks, facts.term, facts.meetingDays).find(
      ({ number }) => number === at('u'),
    )
    const date = stretch?.days[at('d') - 1]?.date
    Object.assign(
      values,
      { unit: at('u'), day: at('d') },
      date ? { dates: { first: date, last: date }, start: date, end: date } : {},
    )
  }
  if (at('n')) values.number = at('n')
  for (const mark of marks) {
    const [key, value] = mark.split('=')
    if (key === 'kind' && value) values.kind = value
    if (key === 'min') values.minutes = Number(value)
    if (key === 'pts') values.points = Number(value)
    if (key === 'due' && value) values.due = value
  }
  return values
}

/** FNV-1a, 32 bits (Fowler, Noll and Vo): which third a name falls into depends on the name alone. */
const hash = (text: string): number => {
  let sum = 0x811c9dc5
  for (const character of text)
    sum = Math.imul(sum ^ (character.codePointAt(0) ?? 0), 0x01000193) >>> 0
  return sum
}

/** Reads the corpus file. @throws Error naming the line that cannot be read */
export const readNameCorpus = (
  text = readFileSync(fileURLToPath(new URL('../names/corpus.txt', import.meta.url)), 'utf8'),
): CorpusName[] => {
  let format: NamingFormat | null = null
  let facts: Facts | null = null
  return text.split('\n').flatMap((line, i): CorpusName[] => {
    if (line.trim() === '' || line.startsWith('#')) return []
    if (line.startsWith('@format ')) {
      format = formatOf(line.slice(8))
      return []
    }
    if (line.startsWith('@course ')) {
      facts = courses[line.slice(8).trim()] ?? null
      return []
    }
    const parsed = /^(.+?) \| (.+) \| (.*?) \|(.*)$/.exec(line)
    if (!parsed || !format || !facts)
      throw new Error(
        `names/corpus.txt, line ${i + 1}: expected “place | name | own words | reading” below @format and @course; found ${line}`,
      )
    const [, place = '', name = '', own = '', marks = ''] = parsed
    const values = valuesAt(facts, place)
    const right =
      own === 'none'
        ? null
        : own.startsWith('= ')
          ? own.slice(2)
          : renderName(format, own === '-' ? values : { ...values, topic: own }).text
    const reading: CorpusName['reading'] = {}
    for (const mark of marks.trim().split(' ').filter(Boolean))
      reading[mark.slice(1) as FieldName] = mark.startsWith('!') ? 'wrong' : 'absent'
    return [
      { line: i + 1, format, facts, values, name, right, reading, heldBack: hash(name) % 3 === 0 },
    ]
  })
}
