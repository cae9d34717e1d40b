import {
  everyCourseItem,
  everyModule,
  withRecordedIdentity,
  type Course,
  type Facts,
} from '../../course/index.ts'
import { readDocument } from '../../document/index.ts'
import { expandCourse } from '../../expand/index.ts'
import { withItemsFilledIn } from '../../firstCourse/index.ts'
import { deployInto, identityOf } from '../../plan/index.ts'
import { Template } from '../../template/index.ts'
import { Facts as FactsSchema } from '../../course/index.ts'
import type { ExampleCourse } from '../rule.ts'

const must = <T>(read: { ok: true; value: T } | { ok: false; problems: unknown }): T => {
  if (!read.ok)
    throw new Error(`the example document is not valid: ${JSON.stringify(read.problems)}`)
  return read.value
}

const atNight = (week: 'week-end', days = 0) => ({ from: week, days, time: '23:59' })

/** The same document each time, read once: whoever asks has a copy that is theirs to change. */
export const eachItsOwn = <T>(make: () => T): (() => T) => {
  let made: T | undefined
  return () => structuredClone((made ??= make()))
}

/** A small template that shows every kind of part and block the rules speak of. */
export const exampleTemplate = eachItsOwn((): Template =>
  must(
    readDocument(Template, {
      schema: 'wickerframe.template/1',
      key: 'example-standard',
      title: 'Example Standard',
      version: 1,
      naming: { courseName: '{code} {title} · {term}', courseLabel: '{code}' },
      home: {
        name: '{code} home',
        blocks: [
          { kind: 'title', key: 'course-title', element: 'course-title', text: '{code} {title}' },
          {
            kind: 'fill-in',
            key: 'office-hours',
            element: 'office-hours',
            label: 'Office hours',
            prompt: 'When can students see you?',
          },
          {
            kind: 'signposts',
            key: 'begin',
            element: 'where-to-begin',
            label: 'Where to begin',
            links: [{ text: 'Begin here', to: 'welcome' }],
          },
          {
            kind: 'fixed-text',
            key: 'help',
            element: 'help',
            html: '<p>The help desk stands at the quay, open every weekday until six.</p>',
          },
        ],
      },
      houseTexts: [
        {
          key: 'muster',
          title: 'Emergency Muster',
          revisions: [
            {
              number: 1,
              inForceFrom: '2025-01-01',
              html: '<p>In an emergency leave by the stair. Call 4400.</p>',
            },
            {
              number: 2,
              inForceFrom: '2026-09-07',
              html: '<p>In an emergency leave by the stair. Call 5500.</p>',
            },
          ],
        },
      ],
      parts: [
        {
          kind: 'module',
          key: 'casting-off',
          name: 'Start here',
          position: 'first',
          items: [
            {
              kind: 'page',
              key: 'welcome',
              name: 'Welcome to {code}',
              blocks: [
                {
                  kind: 'fill-in',
                  key: 'hello',
                  prompt: 'Tell students who you are.',
                  minWords: 5,
                },
                {
                  kind: 'fixed-text',
                  key: 'promise',
                  html: '<p>You will have an answer to every question by Friday of the same week.</p>',
                },
                { kind: 'house-text', key: 'muster', houseText: 'muster' },
              ],
            },
            {
              kind: 'page',
              key: 'staff-notes',
              name: 'Notes for the instructor',
              audience: 'staff',
              blocks: [
                { kind: 'fixed-text', key: 'notes', html: '<p>Publish one week at a time.</p>' },
              ],
            },
          ],
        },
        {
          kind: 'module',
          key: 'week',
          name: 'Week {week} · {dates} · {topic}',
          repeat: { per: 'week' },
          groupings: { min: 3, max: 6, name: 'Unit {unit} · {dates}{? · {topic}?}' },
          items: [
            {
              kind: 'page',
              key: 'week-overview',
              name: 'Week {week} overview',
              blocks: [
                {
                  kind: 'fill-in',
                  key: 'about',
                  prompt: 'In two or three sentences, say what this week is about.',
                },
                {
                  kind: 'guidance-note',
                  key: 'advice',
                  html: '<p>A short recording of yourself works well here.</p>',
                },
              ],
            },
            {
              kind: 'discussion',
              key: 'discussion',
              name: '{code} · Discussion {week}: {topic}',
              acceptsInstead: ['assignment'],
              settings: { due: atNight('week-end', -3) },
            },
            {
              kind: 'assignment',
              key: 'assignment',
              name: '{code} · Assignment {number}: {topic}',
              repeat: { per: 'week', every: 2 },
              settings: { points: 100, due: atNight('week-end') },
            },
            {
              kind: 'assessment',
              key: 'quiz',
              name: '{code} · Quiz {number}: {topic}',
              strength: 'may',
              may: { rename: true },
              settings: { points: 20, due: atNight('week-end') },
            },
            {
              kind: 'page',
              key: 'checklist',
              name: 'Week {week} checklist',
              position: 'last',
              blocks: [
                {
                  kind: 'fixed-text',
                  key: 'tick',
                  html: '<p>Tick off what you have done this week.</p>',
                },
              ],
            },
          ],
        },
      ],
    }),
  ),
)

/** Eight weeks of Autumn 2026, the fifth a break. */
export const exampleFacts = eachItsOwn((): Facts =>
  must(
    readDocument(FactsSchema, {
      schema: 'wickerframe.facts/1',
      code: 'NAV 110',
      title: 'Coastal Navigation',
      department: 'NAV',
      modality: 'on-campus',
      weeks: 8,
      classSections: ['01'],
      instructors: [{ name: 'Sunniva Drake', email: 'sunniva.drake@kestrelsound.example' }],
      term: {
        code: 'autumn-2026',
        title: 'Autumn 2026',
        timeZone: 'America/Halifax',
        firstDay: '2026-08-31',
        lastDay: '2026-10-23',
        breaks: [{ name: 'Fall Pause', first: '2026-09-28', last: '2026-10-02' }],
        holidays: [{ name: 'Labour Day', date: '2026-09-07' }],
      },
      topics: {
        1: 'Charts',
        2: 'Leading marks',
        3: 'Compass',
        4: 'Tides',
        6: 'Streams',
        7: 'Pilotage',
        8: 'Passage plan',
      },
    }),
  ),
)

/** What a careful instructor does after deployment: fills in, takes the notes out. */
const filledIn = (html: string): string =>
  html
    .replace('When can students see you?', 'Tuesdays 10 to 11, room 4')
    .replace(
      'Attach the syllabus as a file.',
      '<a href="/courses/example/files/syllabus-nav-110.pdf">Syllabus NAV 110</a>',
    )
    .replace('Tell students who you are.', 'I have sailed these waters for thirty years.')
    .replace(
      'In two or three sentences, say what this week is about.',
      'We learn what the chart leaves out.',
    )
    .replace(/<div data-wicker-block="advice".*?<\/div>/s, '')

export const emptyCourse = (id: string, name: string): Course => ({
  schema: 'wickerframe.course/2',
  id,
  name,
  label: '',
  status: 'teaching',
  published: true,
  revision: '1',
  readAt: '2026-09-16T11:40:00Z',
  timeZone: 'America/Halifax',
  opensAt: null,
  closesAt: null,
  homePage: null,
  navigation: [],
  modules: [],
  stray: [],
})

/** What a template deploys and an instructor fills in. */
const deployed = (template: Template, facts: Facts): Course => {
  const expected = must(expandCourse({ template, facts, mintFrom: 'example' }))
  const shell = emptyCourse('example', 'New course')
  let next = 0
  const { course, base } = deployInto(
    withItemsFilledIn(expected),
    shell,
    {
      newId: (kind) => `${kind}-${++next}`,
      urlOf: (id) => `/courses/example/${id}`,
      urlOfFile: ({ name, content }) =>
        `/courses/example/files/${content}/${encodeURIComponent(name)}`,
      rewriteHtml: filledIn,
    },
    '2026-09-10',
  )
  return withRecordedIdentity(course, identityOf(base))
}
/** The last few that were asked for, by their documents: most tests ask for the same. */
const known = new Map<string, Course>()
const deployedOnce = (template: Template, facts: Facts): Course => {
  const documents = JSON.stringify([template, facts])
  let course = known.get(documents)
  if (!course) {
    course = deployed(template, facts)
    if (known.size >= 20) known.clear()
    known.set(documents, course)
  }
  return structuredClone(course)
}

/** A course as a template deploys it and an instructor fills it in, ready in every respect. */
export const exampleCourse = (
  template: Template = exampleTemplate(),
  facts: Facts = exampleFacts(),
): ExampleCourse => {
  const course = deployedOnce(template, facts)
  const all = everyCourseItem(course)
  return {
    course,
    facts,
    template,
    history: {
      checkOnly: false,
      deployedOn: '2026-08-20',
      deployedVersion: 1,
      newestVersion: 1,
      recordedParts: all.length + everyModule(course.modules).length,
      preparing: null,
      sameClassSection: [],
      readDaysAgo: 0,
    },
    item: (part, week) => {
      const found = all.find(
        ({ item }) =>
          item.recordedAs?.part === part && (week === undefined || item.recordedAs.number === week),
      )?.item
      if (!found) throw new Error(`the example course has no ${part} in week ${week}`)
      return found
    },
    module: (part, week) => {
      const found = everyModule(course.modules).find(
        (module) =>
          module.recordedAs?.part === part &&
          (week === undefined || module.recordedAs.number === week),
      )
      if (!found) throw new Error(`the example course has no module ${part} ${week}`)
      return found
    },
  }
}
