import { readDocument } from '../../document/index.ts'
import { isModule, Template, type Part } from '../../template/index.ts'
import { eachItsOwn, exampleTemplate } from './exampleCourse.ts'

const starting = (items: readonly Part[]): unknown[] => [
  ...items.filter((item) => item.key === 'welcome'),
  {
    kind: 'page',
    key: 'syllabus',
    name: 'Syllabus',
    blocks: [
      {
        kind: 'fill-in',
        key: 'syllabus-file',
        type: 'file',
        label: 'The syllabus',
        prompt: 'Attach the syllabus as a file.',
      },
      {
        kind: 'document',
        key: 'tide-table-here',
        label: '',
        title: 'Tide table of the harbour',
        files: ['tides'],
      },
      {
        kind: 'video',
        key: 'film',
        strength: 'should',
        title: 'How this course runs',
        url: 'https://films.kestrelsound.example/1',
        minutes: 4,
        captions: true,
      },
    ],
  },
  {
    kind: 'tool-link',
    key: 'chart-table',
    name: 'Chart table',
    strength: 'should',
    url: 'https://tools.kestrelsound.example/charts',
  },
  { kind: 'file', key: 'tide-table', name: 'Tide table', file: { key: 'tides' } },
  {
    kind: 'file',
    key: 'passage-form',
    name: 'Passage form',
    file: { key: 'form', left: 'theirs' },
  },
  ...items.filter((item) => item.key !== 'welcome'),
]

/** A file that is the same for everybody, and a form to be filled in, with the code of the course in it. */
export const exampleFiles = [
  {
    key: 'tides',
    title: 'Tide table',
    fileName: 'tide table.pdf',
    content: '1'.repeat(64),
    bytes: 20_000,
    licence: 'made by the college',
  },
  {
    key: 'form',
    title: 'Passage form',
    fileName: 'passage form.docx',
    content: '2'.repeat(64),
    bytes: 9000,
    fields: ['{code}'],
    words:
      'Passage form for {code}\nFrom which harbour do you sail?\nAt what state of the tide do you leave?\nWho keeps the log?',
  },
]

const settingsOf: Readonly<Record<string, object>> = {
  discussion: { points: 10, category: 'Discussions', notification: true, postFirst: true },
  assignment: { category: 'Assignments', rubric: 'written', handIn: 'file' },
  quiz: { category: 'Quizzes', minutes: 30, graceMinutes: 5, answersShown: 'after-closing' },
}
const assesses: Readonly<Record<string, string[]>> = {
  discussion: ['plan-here'],
  assignment: ['fix-here'],
}

/** One question that stands as it is, one proposed, a sample, and two asked of the instructor. */
const questions = {
  list: [
    {
      key: 'neap',
      body: {
        kind: 'one-answer',
        text: '<p>When does a neap tide come?</p>',
        points: 8,
        choices: [
          { text: 'At new and full moon' },
          { text: 'At the quarters of the moon', right: true },
          { text: 'At every low water' },
        ],
      },
    },
    {
      key: 'chart-datum',
      left: 'proposed',
      body: {
        kind: 'short-answer',
        text: '<p>From what are depths on a chart measured?</p>',
        points: 4,
        answers: ['chart datum', 'the chart datum'],
      },
    },
    {
      key: 'yours',
      left: 'sample',
      body: {
        kind: 'true-or-false',
        text: '<p>This question is an example: a light that flashes red marks the port hand.</p>',
        points: 4,
        right: true,
      },
    },
  ],
  asked: { atLeast: 2, about: 'what the week was about' },
}

const weekly = (item: Part): unknown => ({
  ...item,
  ...(item.key === 'quiz' ? { questions } : {}),
  settings: { ...item.settings, ...settingsOf[item.key] },
  ...(assesses[item.key] ? { assesses: assesses[item.key] } : {}),
  ...(item.key === 'week-overview' && !isModule(item)
    ? { blocks: [...item.blocks, { kind: 'work-list', key: 'to-do', strength: 'should' }] }
    : {}),
})

/** The example template with what rules about grades, settings, outcomes and navigation speak of. */
export const gradedTemplate = eachItsOwn((): Template => {
  const plain = exampleTemplate()
  const read = readDocument(Template, {
    ...plain,
    settings: { language: 'en', gradesShown: true, joinByKey: false, arranged: 'by-topic' },
    grading: {
      weighted: true,
      categories: [
        { key: 'assignments', name: 'Assignments', weight: 60 },
        { key: 'discussions', name: 'Discussions', weight: 15 },
        { key: 'quizzes', name: 'Quizzes', weight: 25 },
      ],
    },
    files: exampleFiles,
    rubrics: [
      {
        key: 'written',
        title: 'Written work',
        criteria: [
          {
            text: 'Right',
            levels: [
              { text: 'all', points: 60 },
              { text: 'some', points: 30 },
            ],
          },
          {
            text: 'Clear',
            levels: [
              { text: 'yes', points: 40 },
              { text: 'no', points: 0 },
            ],
          },
        ],
      },
    ],
    outcomes: [
      { key: 'fix', text: 'Fix a position by three means' },
      { key: 'plan', text: 'Plan a passage' },
    ],
    navigation: [
      { key: 'home', label: 'Home', to: 'place:home' },
      { key: 'modules', label: 'Contents', to: 'place:contents' },
      { key: 'grades', label: 'Grades', to: 'place:grades' },
      { key: 'files', label: 'Files', hidden: true },
      { key: 'begin', label: 'Begin', to: 'part:welcome' },
    ],
    parts: plain.parts.map((part) =>
      !isModule(part)
        ? part
        : part.key === 'casting-off'
          ? { ...part, items: starting(part.items) }
          : {
              ...part,
              items: part.items.map(weekly),
              objectives: [
                { key: 'fix-here', text: 'Fix a position', serves: ['fix'] },
                { key: 'plan-here', text: 'Plan a leg', serves: ['plan'] },
              ],
            },
    ),
  })
  if (!read.ok)
    throw new Error(`the example document is not valid: ${JSON.stringify(read.problems)}`)
  return read.value
})
