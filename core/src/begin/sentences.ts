import { z } from 'zod'
import { modalities } from '../course/index.ts'
import { failure, readDocument, success, type Problem, type Result } from '../document/index.ts'
import {
  freshKey,
  newItem,
  newModule,
  strengths,
  Template,
  type Block,
  type Exception,
  type Item,
  type Module,
} from '../template/index.ts'

/** What a week, unit or day may hold, in the order in which it is laid out. */
export const holdings = [
  'overview',
  'reading',
  'video',
  'notes',
  'discussion',
  'assignment',
  'quiz',
  'checklist',
] as const
export type Holding = (typeof holdings)[number]

const Often = z.enum(['each', 'every-other', 'end-of-unit'])

/** The blanks of the page of sentences from which a new template is made. */
export const Sentences = z.strictObject({
  title: z.string().trim().min(1).max(200),
  modalities: z.array(z.enum(modalities)).min(1),
  lengths: z.array(z.number().int().min(1).max(60)).min(1).max(10).describe('Weeks'),
  per: z.enum(['week', 'unit', 'day']).default('week').describe('What the course is divided into'),
  units: z
    .number()
    .int()
    .min(2)
    .max(30)
    .nullable()
    .default(null)
    .describe('How many units the weeks make up, or null'),
  named: z
    .enum(['number', 'number-dates', 'number-topic', 'number-dates-topic'])
    .default('number-dates-topic'),
  holds: z
    .array(
      z.strictObject({
        what: z.enum(holdings),
        strength: z.enum(strengths).default('must'),
        often: Often.default('each'),
        points: z.number().min(0).max(1000).nullable().default(null),
      }),
    )
    .max(holdings.length),
  opens: z.enum(['week-by-week', 'all-at-once']).default('week-by-week'),
  pause: z.boolean().default(true).describe('Whether the pause week has a notice only'),
  begins: z.boolean().default(true).describe('Whether an opening module says how to begin'),
  ends: z.boolean().default(false).describe('Whether a closing module looks back'),
  grading: z.enum(['weights', 'points', 'none']).default('weights'),
})
export type Sentences = z.output<typeof Sentences>

const fillIn = (
  key: string,
  prompt: string,
  more: Partial<Extract<Block, { kind: 'fill-in' }>> = {},
): Block => ({
  kind: 'fill-in',
  key,
  strength: 'must',
  type: 'text',
  scope: 'place',
  earlierPrompts: [],
  prompt,
  ...more,
})
const atEnd = { from: 'week-end', days: 0, time: '23:59' } as const

const categoryOf: Partial<Record<Holding, string>> = {
  discussion: 'Discussions',
  assignment: 'Assignments',
  quiz: 'Quizzes',
}

/** Shares of a hundred, whole numbers, the first ones taking what is over. */
const shares = (count: number): number[] =>
  Array.from({ length: count }, (_, i) => Math.floor(100 / count) + (i < 100 % count ? 1 : 0))

const itemFor = (what: Holding, place: string, points: number | null, graded: boolean): Item => {
  const due = what === 'discussion' ? { ...atEnd, days: -3 } : atEnd
  const work = {
    ...(points === null ? {} : { points }),
    ...(graded && categoryOf[what] ? { category: categoryOf[what] } : {}),
    due,
  }
  const named = (words: string) => `${place} ${words}`
  switch (what) {
    case 'overview':
      return {
        ...newItem('page', what, named('overview')),
        inGroup: 'per-week',
        blocks: [
          { kind: 'title', key: 'title', strength: 'must', text: named('overview') },
          fillIn(
            'about',
            'In two or three sentences, say what this part of the course is about and why it matters.',
            { type: 'rich-text', minWords: 8 },
          ),
          fillIn(
            'objectives',
            'Two or three objectives, each beginning with a verb you could test.',
            { type: 'list', label: 'By the end you can', strength: 'should' },
          ),
          { kind: 'work-list', key: 'to-do', strength: 'should', label: 'To do' },
        ],
      }
    case 'reading':
      return {
        ...newItem('page', what, named('reading')),
        inGroup: 'per-week',
        blocks: [
          fillIn('list', 'What to read, with page numbers.', {
            type: 'list',
            label: 'Read before class',
          }),
        ],
      }
    case 'video':
      return {
        ...newItem('page', what, named('video')),
        inGroup: 'per-week',
        blocks: [
          fillIn('video', 'A recording of at most ten minutes, with captions.', { type: 'video' }),
        ],
      }
    case 'notes':
      return {
        ...newItem('page', what, named('notes')),
        inGroup: 'per-week',
        blocks: [fillIn('notes', 'Notes from class.', { strength: 'should' })],
      }
    case 'discussion':
      return {
        ...newItem('discussion', what, named('discussion: {topic}')),
        inGroup: 'per-week',
        settings: work,
        blocks: [
          fillIn(
            'question',
            'One open question students can argue about from their own experience.',
          ),
        ],
      }
    case 'assignment':
      return {
        ...newItem('assignment', what, 'Assignment {number}: {topic}'),
        inGroup: 'per-week',
        settings: work,
        blocks: [
          fillIn(
            'brief',
            'Say what students hand in, in which form, and how long it should take.',
            { label: 'What to do', minWords: 6 },
          ),
        ],
      }
    case 'quiz':
      return {
        ...newItem('assessment', what, 'Quiz {number}: {topic}'),
        inGroup: 'per-week',
        settings: work,
      }
    case 'checklist':
      return {
        ...newItem('page', what, named('checklist')),
        inGroup: 'per-week',
        position: 'last',
        blocks: [
          {
            kind: 'checklist',
            key: 'list',
            strength: 'must',
            label: 'Before you go on',
            lines: ['I have read what the reading page lists.', 'I have handed in what was due.'],
          },
        ],
      }
  }
}

/**
 * Makes a template from the page of sentences: home page, opening module, one repeated module with what each holds,
 * exceptions for the pause and the end of units, grade scheme.
 * @returns the template as a draft, or what is wrong with the answers
 */
export const templateFromSentences = (
  answers: Sentences,
  taken: ReadonlySet<string> = new Set(),
): Result<Template, Problem[]> => {
  const place = { week: 'Week {week}', unit: 'Unit {unit}', day: 'Day {day}' }[answers.per]
  const graded = answers.grading !== 'none'
  const module: Module = {
    ...newModule(
      'learning',
      `${place}${answers.named.includes('dates') ? ' · {dates}' : ''}${answers.named.includes('topic') ? ' · {topic}' : ''}`,
    ),
    repeat: { per: answers.per, every: 1, except: [] },
    ...(answers.opens === 'week-by-week'
      ? { settings: { opens: { from: 'week-start', days: 0, time: '00:00' } } }
      : {}),
    ...(answers.per === 'week' && answers.units !== null
      ? { groupings: { min: answers.units, max: answers.units, name: 'Unit {unit} · {dates}' } }
      : {}),
  }
  const exceptions: Exception[] = []
  const atUnitEnd: Item[] = []
  for (const what of holdings) {
    const asked = answers.holds.find((hold) => hold.what === what)
    if (!asked) continue
    const item: Item = { ...itemFor(what, place, asked.points, graded), strength: asked.strength }
    if (asked.often === 'end-of-unit' && answers.units !== null) atUnitEnd.push(item)
    else
      module.items.push(
        asked.often === 'every-other'
          ? { ...item, repeat: { per: 'week', every: 2, except: [] } }
          : item,
      )
  }
  if (atUnitEnd.length > 0)
    exceptions.push({
      key: 'end-of-unit',
      anchor: { at: 'last-of-unit' },
      omit: false,
      leaveOut: [],
      set: [],
      add: atUnitEnd,
    })
  if (answers.pause && answers.per === 'week')
    exceptions.push({
      key: 'pause',
      anchor: { at: 'pause' },
      omit: false,
      leaveOut: 'all',
      set: [],
      add: [
        {
          ...newItem('page', 'pause-notice', 'Week {week}: no class'),
          blocks: [
            {
              kind: 'fixed-text',
              key: 'notice',
              strength: 'must',
              html: '<p>There is no class this week, and nothing is due.</p>',
            },
          ],
        },
      ],
    })
  module.exceptions = exceptions

  const opening: Module = {
    ...newModule('casting-off', 'Start here'),
    position: 'first',
    span: 'course',
    items: [
      {
        ...newItem('page', 'welcome', 'Welcome to {code}'),
        blocks: [
          { kind: 'title', key: 'title', strength: 'must', text: 'Welcome to {code} {title}' },
          fillIn('about-you', 'Say who you are and what you like about this subject.', {
            label: 'Who teaches this course',
            minWords: 10,
          }),
        ],
      },
      {
        ...newItem('page', 'syllabus', '{code} syllabus, {term}'),
        blocks: [
          fillIn(
            'aims',
            'List what a student can do at the end, each beginning with a verb you could test.',
            { type: 'list', label: 'What you will be able to do', minWords: 8 },
          ),
          { kind: 'schedule', key: 'schedule', strength: 'should', label: 'Schedule' },
        ],
      },
    ],
  }
  const closing: Module = {
    ...newModule('wrapping-up', 'Wrapping up'),
    position: 'last',
    span: 'course',
    strength: 'should',
    items: [
      {
        ...newItem('page', 'looking-back', 'Looking back'),
        blocks: [fillIn('look', 'What students should take with them.', { strength: 'should' })],
      },
    ],
  }
  const categories = [
    ...new Set(
      answers.holds.flatMap((hold) => (categoryOf[hold.what] ? [categoryOf[hold.what] ?? ''] : [])),
    ),
  ]
  const weights = shares(Math.max(1, categories.length))
  const key = freshKey(answers.title, taken)
  const draft = readDocument(Template, {
    schema: 'wickerframe.template/1',
    key,
    title: answers.title,
    appliesTo: { modalities: answers.modalities, weeks: answers.lengths },
    naming: { courseName: '{code} {title} · {term}', courseLabel: '{code}' },
    opening: { follow: answers.opens },
    ...(answers.units !== null ? { units: answers.units } : {}),
    home: {
      name: '{code} home',
      blocks: [
        { kind: 'title', key: 'course-title', element: 'course-title', text: '{code} {title}' },
        fillIn('welcome', 'Greet your students in two or three sentences.', {
          element: 'welcome',
          type: 'rich-text',
          label: 'Welcome',
        }),
        { kind: 'contact-card', key: 'contact', element: 'instructor-contact' },
        fillIn('office-hours', 'Days, times and the room or link where students find you.', {
          element: 'office-hours',
          scope: 'course',
          label: 'Office hours',
        }),
        ...(answers.begins
          ? [
              {
                kind: 'signposts',
                key: 'begin',
                element: 'where-to-begin',
                label: 'Where to begin',
                links: [{ text: 'Begin here', to: 'welcome' }],
              },
            ]
          : [
              {
                kind: 'signposts',
                key: 'begin',
                element: 'where-to-begin',
                label: 'Where to begin',
                links: [{ text: 'Begin here', to: 'learning' }],
              },
            ]),
      ],
    },
    navigation: [
      { key: 'home', label: 'Home', to: 'place:home' },
      { key: 'course', label: 'Course', to: 'place:contents' },
      ...(graded ? [{ key: 'grades', label: 'Grades', to: 'place:grades' }] : []),
    ],
    grading:
      answers.grading === 'none'
        ? { weighted: false }
        : {
            weighted: answers.grading === 'weights',
            categories: categories.map((name, i) => ({
              key: freshKey(name, new Set()),
              name,
              weight: answers.grading === 'weights' ? weights[i] : 0,
            })),
          },
    parts: [...(answers.begins ? [opening] : []), module, ...(answers.ends ? [closing] : [])],
  })
  return draft.ok ? success(draft.value) : failure(draft.problems)
}

/** Blanks as the page of sentences first shows them. */
export const usualSentences = (): Sentences => ({
  title: 'New standard',
  modalities: ['on-campus'],
  lengths: [16],
  per: 'week',
  units: null,
  named: 'number-dates-topic',
  opens: 'week-by-week',
  pause: true,
  begins: true,
  ends: false,
  grading: 'weights',
  holds: [
    { what: 'overview', strength: 'must', often: 'each', points: null },
    { what: 'reading', strength: 'should', often: 'each', points: null },
    { what: 'discussion', strength: 'should', often: 'each', points: 10 },
    { what: 'assignment', strength: 'must', often: 'every-other', points: 100 },
    { what: 'checklist', strength: 'must', often: 'each', points: null },
  ],
})
