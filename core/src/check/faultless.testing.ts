import * as fc from 'fast-check'
import { holdings, templateFromSentences, usualSentences, type Sentences } from '../begin/index.ts'
import {
  addDays,
  dateOfDayNumber,
  dayNumber,
  instructionalWeeks,
  weekdayIndex,
  type Term,
} from '../calendar/index.ts'
import {
  modalities,
  everyCourseItem,
  everyModule,
  withRecordedIdentity,
  type Course,
  type CourseItem,
  type Facts,
} from '../course/index.ts'
import { readDocument } from '../document/index.ts'
import { withItemsFilledIn } from '../firstCourse/index.ts'
import { firstHouseStyle } from '../houseStyle/index.ts'
import { newLayer } from '../layer/index.ts'
import { leftBlocks, readerNames } from '../testing/leftBlocks.testing.ts'
import { everyExpected, expandCourse, type ExpectedCourse } from '../expand/index.ts'
import { deployInto, identityOf } from '../plan/index.ts'
import { exampleFileParts } from '../testing/exampleFiles.testing.ts'
import { exampleQuestions } from '../testing/exampleQuestions.testing.ts'
import { emptyCourse, exampleFacts, exampleTemplate } from '../rules/example/exampleCourse.ts'
import { gradedTemplate } from '../rules/example/gradedTemplate.ts'
import {
  escapeHtml,
  everyItem,
  isModule,
  isNote,
  leftAs,
  newItem,
  newModule,
  Template,
  type Item,
  type Module,
} from '../template/index.ts'

/*
 * Courses in which nothing is wrong: a template in some language, deployed into some term and filled in by a good instructor.
 * Whatever is told of them, also after their marks and their identity are gone, is a false alarm.
 */

/** Some words of a language; a text is written anew with them, the same word always by the same one. */
const vocabularies = {
  English: null,
  French:
    'port vague vent phare cap marée voile quai barre carte nord loin près avant toujours jamais petit grand neuf vieux clair sombre',
  German:
    'Hafen Meer Welle Wind Leuchtturm Kap Flut Segel Kai Ruder Karte Norden weit nah vor immer niemals klein groß neu alt hell dunkel',
  Greek:
    'λιμάνι θάλασσα κύμα άνεμος φάρος ακρωτήρι παλίρροια πανί προβλήτα τιμόνι χάρτης βορράς μακριά κοντά πριν μετά πάντα ποτέ μικρό μεγάλο',
} as const
type Language = keyof typeof vocabularies

/** FNV-1a, for a choice that is the same each time. */
const numberOf = (text: string): number => {
  let hash = 2_166_136_261
  for (const character of text) hash = Math.imul(hash ^ character.charCodeAt(0), 16_777_619)
  return hash >>> 0
}
/** A text in a language: words one by one, fields, tags and entities as they are. */
const said = (text: string, language: Language): string => {
  const words = vocabularies[language]?.split(' ')
  if (!words) return text
  const word = (of: string): string => words[numberOf(of) % words.length] ?? ''
  return text
    .split(/(\{[^}]*\}|<[^>]*>|&\w+;|note:)/)
    .map((part, i) =>
      i % 2 === 1
        ? part
        : part.replace(/\p{L}{2,}/gu, (one) => word(one) + word(`${one}2`).slice(0, 3)),
    )
    .join('')
}
const written = new Set(
  'name prompt label html title text hint summary caption courseName why whatToDo question'.split(
    ' ',
  ),
)
const inLanguage = (template: Template, language: Language): Template => {
  const anew = (value: unknown, field: string): unknown =>
    typeof value === 'string'
      ? written.has(field)
        ? said(value, language)
        : value
      : Array.isArray(value)
        ? value.map((one) => anew(one, field === 'lines' ? 'text' : field))
        : typeof value === 'object' && value !== null
          ? Object.fromEntries(Object.entries(value).map(([name, one]) => [name, anew(one, name)]))
          : value
  const read = readDocument(Template, anew(template, ''))
  if (!read.ok) throw new Error(JSON.stringify(read.problems))
  return read.value
}

const sentences: fc.Arbitrary<Sentences> = fc
  .record({
    per: fc.constantFrom<Sentences['per']>('week', 'unit'),
    named: fc.constantFrom<Sentences['named']>(
      'number',
      'number-dates',
      'number-topic',
      'number-dates-topic',
    ),
    opens: fc.constantFrom<Sentences['opens']>('week-by-week', 'all-at-once'),
    pause: fc.boolean(),
    begins: fc.boolean(),
    ends: fc.boolean(),
    grading: fc.constantFrom<Sentences['grading']>('weights', 'points', 'none'),
    holds: fc.subarray([...holdings], { minLength: 1 }),
  })
  .map(({ holds, ...answers }) => ({
    ...usualSentences(),
    ...answers,
    units: answers.per === 'unit' ? 4 : null,
    holds: holds.map((what, i) => ({
      what,
      strength: 'must',
      often: (['each', 'every-other', 'end-of-unit'] as const)[i % 3] ?? 'each',
      points: 10,
    })),
  }))

export const faultlessCases = fc.record({
  from: fc.oneof(
    fc.constantFrom('the example' as const, 'the graded example' as const),
    sentences,
    sentences,
  ),
  language: fc.constantFrom<Language>('English', 'French', 'German', 'Greek'),
  /** The format of the repeated module's names; as the template has it, without one. N stands for week or unit. */
  named: fc.constantFrom(
    null,
    null,
    '{N, 00} / {topic} / {dates}',
    '{N}. {topic}',
    '{topic} ({N})',
    '{dates} | {N} | {topic}',
    'No. {N}: {topic}',
  ),
  /** Home elements that are left out, and by how many places the rest is turned round. */
  home: fc.record({ without: fc.nat({ max: 2 }), turned: fc.nat({ max: 3 }) }),
  /** The repetition in which something else is done: parts left out, and a page and a discussion added. */
  exceptionIn: fc.constantFrom(null, null, 1, 2, 3),
  /** Whether a layer lies over the template, with parts and a block of its own. */
  layered: fc.boolean(),
  styled: fc.boolean(),
  /** Of the first day; it is moved back to a Monday. */
  begins: fc.integer({ min: dayNumber('2024-01-01'), max: dayNumber('2029-12-31') }),
  /** After so many weeks; none for 0. */
  breakAfter: fc.constantFrom(0, 0, 4, 5, 7),
  reader: fc.constantFrom(undefined, ...readerNames),
  timeZone: fc.constantFrom('America/Halifax', 'Europe/Paris', 'Asia/Kolkata'),
  /** Blocks left to the instructor with their structure, by their place in the list of them. */
  /** Whether assessments ask something: fixed, proposed, as a sample, and something of the instructor’s own. */
  asks: fc.boolean(),
  leaves: fc.subarray(
    leftBlocks.map((_, i) => i),
    { maxLength: 4 },
  ),
  /** How far the term is when it is looked at, 0 to 1. */
  looked: fc.double({ min: 0, max: 1, noNaN: true }),
  /** `borrowed`: in a few words of the block that stands beside it. */
  answers: fc.constantFrom('short' as const, 'long' as const, 'borrowed' as const),
})
export type FaultlessCase = typeof faultlessCases extends fc.Arbitrary<infer Case> ? Case : never

const topics = [
  'Charts and marks',
  'Compass and deviation',
  'Tides',
  'Streams',
  'Pilotage at night',
  'Passage plan',
  'Radar',
  'Knots',
]

const factsOf = (
  { begins, breakAfter, timeZone, language, reader }: FaultlessCase,
  template: Template,
  length: number,
  units: number | null,
): Facts => {
  const day = dateOfDayNumber(begins)
  const firstDay = addDays(day, -weekdayIndex(day))
  const term: Term = {
    ...exampleFacts().term,
    firstDay,
    lastDay: addDays(firstDay, (length + (breakAfter > 0 ? 1 : 0)) * 7 - 3),
    timeZone,
    sessions: [],
    otherDates: [],
    holidays: [],
    breaks:
      breakAfter > 0
        ? [
            {
              name: 'Pause',
              first: addDays(firstDay, breakAfter * 7),
              last: addDays(firstDay, breakAfter * 7 + 4),
            },
          ]
        : [],
  }
  const weeks = instructionalWeeks({ term }).filter(({ number }) => number > 0)
  const topicOf = (number: number): string =>
    `${said(topics[number % topics.length] ?? '', language)} ${String.fromCodePoint(64 + number)}`
  const each = Math.ceil(weeks.length / (units ?? 1))
  return {
    ...exampleFacts(),
    modality:
      modalities.find((name) => template.appliesTo.modalities.includes(name)) ?? 'on-campus',
    term,
    weeks: weeks.length,
    ...(reader === undefined ? {} : { readerName: reader }),
    topics: Object.fromEntries(weeks.map(({ number }) => [number, topicOf(number)])),
    ...(units === null
      ? {}
      : {
          units: Array.from({ length: units }, (_, i) => ({
            number: i + 1,
            firstWeek: i * each + 1,
            lastWeek: Math.min(weeks.length, (i + 1) * each),
            title: topicOf(i + 1),
          })),
        }),
  }
}

/** A template with questions and files of all ways of being left; the questions come to what each assessment is worth. */
const asking = (template: Template): Template => {
  for (const item of everyItem(template)) {
    if (item.kind !== 'assessment' || item.questions) continue
    const points = (item.settings.points ?? 10) / 10
    const list = exampleQuestions().map((question) => ({
      ...question,
      body: { ...question.body, points },
    }))
    item.questions = { list, asked: { atLeast: 2, about: 'your course' } }
  }
  const { files, items } = exampleFileParts()
  template.files.push(...files)
  const module = template.parts.find(isModule)
  module?.items.push(...items)
  template.home.blocks.push({
    kind: 'document',
    key: 'given-document',
    strength: 'must',
    label: '',
    title: 'What you take along',
    files: files.map(({ key }) => key),
  })
  return template
}
/** The other files that pages lead to, told as a platform would. */
const withOwnFiles = (course: Course): Course => {
  const { files } = course
  if (!files) return course
  const known = new Set(files.map(({ url }) => url))
  const own = everyCourseItem(course).flatMap(({ item }) =>
    [...(item.html ?? '').matchAll(/(?:href|src)="(\/courses\/f\/files\/[^"]+)"/g)].flatMap(
      ([, url = '']) => (known.has(url) ? [] : [url]),
    ),
  )
  return {
    ...course,
    files: [
      ...files,
      ...[...new Set(own)].map((url) => ({
        id: url,
        name: url.slice(url.lastIndexOf('/') + 1),
        url,
        restricted: false,
      })),
    ],
  }
}
/** The template with some blocks left to the instructor: people’s on the home page, the others on pages of the repeated module. */
const leaving = (template: Template, leaves: readonly number[]): Template => {
  const next = structuredClone(template)
  const repeated = next.parts.find(
    (part): part is Module => isModule(part) && part.repeat !== undefined,
  )
  const pages = (repeated?.items ?? []).filter(
    (part): part is Item => !isModule(part) && part.kind === 'page',
  )
  for (const i of leaves) {
    const block = leftBlocks[i]
    const page = block?.kind === 'contact-card' ? next.home : pages[i % Math.max(1, pages.length)]
    // Objectives that serve no outcome and that nothing assesses are told rightly where there are outcomes.
    if (block && (block.kind !== 'objectives' || next.outcomes.length === 0))
      page?.blocks.push(structuredClone(block))
  }
  return next
}

const own = (key: string, name: string): Item => ({
  ...newItem('page', key, name),
  blocks: [
    {
      kind: 'fixed-text',
      key: `${key}-text`,
      strength: 'must',
      html: '<p>Whoever stands the watch writes into the log what has changed since noon.</p>',
    },
  ],
})
/** Dated, and no work. */
const held = (key: string, name: string, from: 'term-end' | 'week-start', days: number): Item => ({
  ...newItem('event', key, name),
  settings: { due: { from, days, time: '13:30' }, minutes: 90, where: 'Simulator, east wing' },
})
/** The template with other names, another home page, an exception and a layer, as a case has them. */
const varied = (
  template: Template,
  { named, home, exceptionIn, layered, styled }: FaultlessCase,
): Template => {
  const next = structuredClone(template)
  const repeated = next.parts.find(
    (part): part is Module => isModule(part) && part.repeat !== undefined,
  )
  const per = repeated?.repeat?.per
  if (repeated && (per === 'week' || per === 'unit')) {
    if (named !== null) repeated.name = named.replaceAll('N', per)
    if (exceptionIn !== null)
      repeated.exceptions.push({
        key: 'other',
        anchor: { at: 'number', number: exceptionIn },
        omit: false,
        leaveOut: repeated.items.slice(0, 1).map(({ key }) => key),
        set: [],
        add: [own('regatta', `Regatta of {${per}}`)],
      })
  }
  const { blocks } = next.home
  blocks.splice(1, home.without)
  blocks.push(...blocks.splice(0, home.turned % Math.max(1, blocks.length)))
  if (styled) {
    next.houseStyle = firstHouseStyle
    next.frameHosts = ['films.kestrelsound.example']
    for (const [i, block] of [
      ...blocks,
      ...everyItem(next).flatMap((item) => item.blocks),
    ].entries())
      Object.assign(block, [{ beside: true }, { card: true }, {}][(home.turned + i) % 3])
  }
  if (!layered) return next
  const layer = newLayer(next, 'layer', 'A layer')
  layer.parts.push({
    ...newModule('harbour', 'Of the harbour'),
    items: [own('watch', 'The watch'), held('drill', 'Lifeboat drill', 'term-end', -8)],
  })
  const module = layer.parts.find(({ key }) => key === repeated?.key)
  if (module && isModule(module))
    module.items.push(
      own('log', `The log of {${per ?? 'week'}}`),
      held('lab', `Radar lab {${per ?? 'week'}}`, 'week-start', 2),
    )
  return layer
}

const wordsOf = (html: string): string[] =>
  html
    .replace(/<[^>]*>/g, ' ')
    .split(/\s+/)
    .filter((word) => word !== '')

/** Fills in whatever a page asks for, in the shape and the length that it asks for, and takes the notes out. */
const filling = (expected: ExpectedCourse, { language, answers }: FaultlessCase) => {
  const blocks = [expected.home, ...everyExpected(expected.parts)].flatMap((part) => part.blocks)
  const asked = new Map(
    blocks.flatMap(({ definition }) =>
      definition.kind === 'fill-in' ? [[definition.prompt, definition] as const] : [],
    ),
  )
  const beside = new Map(
    [expected.home, ...everyExpected(expected.parts)].flatMap((part) =>
      part.blocks.flatMap(({ definition }, i) => {
        const neighbour = [part.blocks[i + 1], part.blocks[i - 1]].find(
          (block) =>
            block &&
            block.kind !== 'guidance-note' &&
            // A prompt that is gone lends nothing.
            (block.kind === 'fill-in' || block.asks.length === 0),
        )
        return definition.kind === 'fill-in' && neighbour
          ? [[definition.prompt, wordsOf(neighbour.html).slice(0, 3).join(' ')] as const]
          : []
      }),
    ),
  )
  const notes = new Set(
    blocks.flatMap((block) => (block.definition.kind === 'guidance-note' ? [block.key] : [])),
  )
  const pieces = blocks.filter(({ kind }) => kind !== 'fill-in')
  const proposed = new Set(
    blocks.flatMap(({ key, definition }) => (leftAs(definition) === 'proposed' ? [key] : [])),
  )
  const short = answers !== 'long'
  let count = 0
  const say = (text: string): string => `${escapeHtml(said(text, language))} ${count}`
  const shapes: Readonly<Record<string, () => string>> = {
    list: () =>
      `<ul><li>${say('Plot a fix')}</li><li>${say('Draw the line of the course')}</li></ul>`,
    file: () =>
      `<p><a href="/courses/f/files/${count}.pdf">${say('The whole of it as a file')}</a></p>`,
    video: () =>
      `<p><a href="https://films.example/${count}">${say('How tides turn')} (4 min, captions)</a></p>`,
    image: () => `<p><img src="/courses/f/files/${count}.png" alt="${say('A lighthouse')}"></p>`,
    link: () => `<p><a href="https://tides.example/${count}">${say('Tables of the tide')}</a></p>`,
    'e-mail': () => '<p>sunniva.drake@kestrelsound.example</p>',
  }
  const long =
    'We settled this together and wrote it down for whoever missed the day in the harbour'
  return (html: string): string => {
    let filled = html
    for (const [prompt, { type, minWords = 0 }] of asked) {
      const place = `<p>${escapeHtml(prompt)}</p>`
      while (filled.includes(place)) {
        count += 1
        const borrowed = answers === 'borrowed' && minWords < 4 ? beside.get(prompt) : undefined
        const isShort = short && minWords < 4
        filled = filled.replace(place, () =>
          (
            shapes[type] ??
            (() => `<p>${borrowed ?? say(isShort ? 'Every day at noon' : long)}.</p>`)
          )(),
        )
      }
    }
    for (const { asks, definition } of pieces)
      for (const piece of asks)
        while (filled.includes(piece)) {
          count += 1
          const shape =
            shapes[
              definition.kind === 'document' ? 'file' : definition.kind === 'video' ? 'video' : ''
            ]
          const text = isNote(piece) ? '' : (shape?.() ?? say(short ? 'Every day at noon' : long))
          filled = filled.replace(piece, () =>
            shape || !piece.startsWith('<p>') ? text : `<p>${text}.</p>`,
          )
        }
    // What is proposed is worded otherwise by whoever has the time.
    if (answers === 'long')
      for (const key of proposed)
        filled = filled.replaceAll(
          new RegExp(`(<div data-wicker-block="${key}"[^>]*>).*?(</div>)`, 'gs'),
          (_, open: string, close: string) => {
            count += 1
            return `${open}<p>${say(long)}.</p>${close}`
          },
        )
    for (const note of notes)
      filled = filled.replaceAll(new RegExp(`<div data-wicker-block="${note}".*?</div>`, 'gs'), '')
    return filled
  }
}

/**
 * A case as a course that is open, with recorded identity and marks.
 * @param change what is made wrong in its template before it is deployed; nothing without it
 */
export const faultless = (
  given: FaultlessCase,
  change: (template: Template) => void = () => undefined,
): { template: Template; facts: Facts; course: Course; asOf: string } => {
  const { from, language, looked } = given
  const made =
    from === 'the example'
      ? exampleTemplate()
      : from === 'the graded example'
        ? gradedTemplate()
        : templateFromSentences(from)
  if ('ok' in made && !made.ok) throw new Error(JSON.stringify(made.problems))
  const left = leaving('ok' in made ? made.value : made, given.leaves)
  const template = varied(inLanguage(given.asks ? asking(left) : left, language), given)
  change(template)
  const isExample = typeof from === 'string'
  const facts = factsOf(
    given,
    template,
    isExample ? 8 : (from.lengths[0] ?? 16),
    isExample ? null : from.units,
  )
  const expected = expandCourse({ template, facts, mintFrom: 'f' })
  if (!expected.ok) throw new Error(JSON.stringify(expected.problems))
  let next = 0
  const { firstDay, lastDay } = facts.term
  const asOf = addDays(firstDay, Math.floor((dayNumber(lastDay) - dayNumber(firstDay)) * looked))
  const deployed = deployInto(
    withItemsFilledIn(expected.value),
    {
      ...emptyCourse('f', 'New course'),
      timeZone: facts.term.timeZone,
      // Not every platform tells which files a course holds.
      ...(given.begins % 2 === 0 ? { files: [] } : {}),
    },
    {
      newId: (kind) => `${kind}-${++next}`,
      urlOf: (id) => `/courses/f/${id}`,
      urlOfFile: ({ name, content }) => `/courses/f/files/${content}/${encodeURIComponent(name)}`,
      rewriteHtml: filling(expected.value, given),
    },
    // With the house texts that are in force on the day on which it is looked at.
    asOf,
  )
  const course = structuredClone(
    withOwnFiles(withRecordedIdentity(deployed.course, identityOf(deployed.base))),
  )
  course.published = true
  for (const module of everyModule(course.modules)) module.published = true
  for (const { item } of everyCourseItem(course)) if (!item.staffOnly) item.published = true
  return { template, facts, course, asOf }
}

export const ownPage = (id: string, name: string): CourseItem => ({
  id,
  kind: 'page',
  name,
  published: true,
  staffOnly: false,
  opensAt: null,
  dueAt: null,
  closesAt: null,
  points: null,
  category: null,
  target: null,
  studentWork: false,
  url: `/courses/f/${id}`,
  html: '<h2>What I noticed</h2><p>The wind turned twice today, and the lamp was lit an hour early.</p>',
})

const everyPage = (course: Course, write: (html: string) => string): void => {
  for (const { item } of everyCourseItem(course))
    if (item.html !== null) item.html = write(item.html)
}
/** What platforms, copies and imports do to a course, none of which harms it. Each changes the course it is given. */
export const treatments = {
  'loses its marks': (course) =>
    everyPage(course, (html) =>
      html.replace(/ data-wicker-[a-z]+="[^"]*"/g, '').replace(/<\/?div>\s*/g, ''),
    ),
  'loses its identity': (course) => {
    for (const module of everyModule(course.modules)) delete module.recordedAs
    for (const { item } of everyCourseItem(course)) delete item.recordedAs
  },
  'has its tags written anew': (course) =>
    everyPage(course, (html) =>
      html
        .replace(/<(p|li|h[1-6])>/g, '<$1 dir="ltr">')
        .replace(/<a (?!class)/g, '<a class="kp-link" ')
        .replace(/<\/(p|li|h[1-6]|ul|ol|div)>\s*(?=<)/g, '</$1>\n  '),
    ),
  'has its letters written as numbers': (course) =>
    everyPage(course, (html) =>
      html.replace(/[–’“”é·]/g, (letter) => `&#${letter.charCodeAt(0)};`),
    ),
  'is moved to another address': (course) => {
    const moved = JSON.parse(
      JSON.stringify(course).replaceAll('/courses/f/', '/courses/moved-9/'),
    ) as Course
    Object.assign(course, moved)
  },
  'has pages of its own': (course) => {
    course.modules.forEach((module, i) => {
      if (i % 3 === 1)
        // Before the last, which may have to be the last.
        module.children.splice(-1, 0, ownPage(`own-${i}`, `My notes for the ${i}. time`))
    })
  },
  'has a module of its own': (course) => {
    course.modules.push({
      kind: 'module',
      id: 'own-module',
      name: 'For those who want more',
      published: true,
      staffOnly: false,
      opensAt: null,
      url: `/courses/${course.id}/own-module`,
      children: [ownPage('own-more', 'More about the harbour')],
    })
  },
  'has its marks on other tags': (course) =>
    everyPage(course, (html) =>
      html.replace(
        /<div( data-wicker-block="[^"]*")( data-wicker-part="[^"]*")>/g,
        '<section$2$1>',
      ),
    ),
} satisfies Record<string, (course: Course) => void>
export type Treatment = keyof typeof treatments
export const treatmentNames = Object.keys(treatments) as Treatment[]
