import {
  type Course,
  deployInto,
  expandCourse,
  type Facts,
  identityOf,
  itemsIn,
  readDocument,
  Template,
  withRecordedIdentity,
} from '@wickerframe/core'
import { shell } from './makeCourse.ts'
import { pick, seededRandom } from './random.ts'

/** A generated model course, with the template it was made from: the truth that a reading of it is measured against. */
export interface ModelCase {
  course: Course
  facts: Facts
  template: Template
  /** For each item of the platform that stands for a repeated part: which part it is. */
  partOf: ReadonlyMap<string, string>
}

const moduleNames = [
  'Week {week} · {dates} · {topic}',
  'Week {week}: {topic}',
  'Week {week, 00} – {topic}',
  '{week}. {topic}',
  'Week {week} ({dates})',
  'Watch {week}: {topic}',
]
const itemNames: Readonly<Record<string, readonly string[]>> = {
  page: [
    'Week {week} overview',
    'Overview of week {week}',
    '{code} week {week}: what to know',
    'Before you start: week {week}',
  ],
  reading: ['Week {week} reading', 'Reading {number}: {topic}', 'What to read in week {week}'],
  notes: ['Week {week} notes', 'Notes: {topic}', '{code} notes {number}'],
  discussion: [
    '{code} · Discussion {week}: {topic}',
    'Discussion {number}',
    'Week {week} – talk it over',
  ],
  assignment: [
    '{code} · Assignment {number}: {topic}',
    'Assignment {number}',
    'Lab report {number}: {topic}',
  ],
  assessment: ['Quiz {number}: {topic}', 'Week {week} quiz', '{code} check {number}'],
  checklist: ['Week {week} checklist', 'Before week {week} closes'],
}
const fixedTexts = [
  'Work through the items from top to bottom, and tick off each as you go.',
  'Late work loses a tenth for each day, unless you wrote before it was due.',
  'One file, named with your own name. Keep the copy you signed.',
  'Answer at least one classmate by the end of the week, and say why you agree or do not.',
  'Bring the chart, the dividers and a soft pencil to every class.',
  'Questions go to the board by the slip, or to the discussion for everyone.',
  'The tables are in the chart room; hand them back before the watch changes.',
  'What you write stays inside the class.',
]
const headings = [
  'What to do',
  'Handing in',
  'Read before class',
  'By the end you can',
  'Why it matters',
  'Take with you',
  'In class',
  'At home',
]
const prompts = [
  'Say in a few sentences what this is about.',
  'What should students hand in, and in which form?',
  'List what to read, with page numbers.',
  'Ask one open question.',
  'Say what they can do afterwards.',
]
const subjects = [
  'the compass',
  'a spring tide',
  'the old pilot',
  'a fouled anchor',
  'the deck log',
  'a lee shore',
  'the boilers',
  'two lights in line',
  'a cold start',
  'the galley fire',
  'the radio watch',
  'a swinging ship',
  'the ice edge',
  'the tow line',
  'a broached boat',
  'the harbour board',
]
const verbs = [
  'turns',
  'fails',
  'is read wrongly',
  'comes late',
  'has to be mended',
  'is signed for',
  'keeps its place',
  'was left out',
  'goes by the board',
  'stands by',
  'takes the strain',
  'runs dry',
]
const ends = [
  'in a rising wind',
  'before the turn of the tide',
  'while nobody looks',
  'three miles off',
  'at the change of watch',
  'in the small hours',
  'with the glass falling',
  'under the cliff',
  'for the second time',
  'by the book',
]

const sentence = (random: () => number): string =>
  `${pick(random, subjects)} ${pick(random, verbs)} ${pick(random, ends)}`.replace(/^./, (first) =>
    first.toUpperCase(),
  )
const someOf = <T>(random: () => number, list: readonly T[], count: number): T[] => {
  const left = [...list]
  return Array.from(
    { length: Math.min(count, list.length) },
    () => left.splice(Math.floor(random() * left.length), 1)[0] as T,
  )
}

/** A template of its own kind: some items, each page with fixed text and places to fill in, in some order. */
const randomTemplate = (random: () => number): Template => {
  const kinds = [
    'page',
    ...someOf(
      random,
      ['reading', 'notes', 'discussion', 'assignment', 'assessment', 'checklist'],
      3 + Math.floor(random() * 3),
    ),
  ]
  const texts = someOf(random, fixedTexts, fixedTexts.length)
  const labels = someOf(random, headings, headings.length)
  let block = 0
  const page = (): object[] => {
    const count = 2 + Math.floor(random() * 3)
    const fillAt = Math.floor(random() * count)
    return Array.from({ length: count }, (_, i) => {
      block += 1
      return i === fillAt
        ? {
            kind: 'fill-in',
            key: `ask-${block}`,
            prompt: prompts[block % prompts.length],
            ...(random() < 0.6 ? { label: labels[block % labels.length] } : {}),
          }
        : { kind: 'fixed-text', key: `say-${block}`, html: `<p>${texts[block % texts.length]}</p>` }
    })
  }
  const items = kinds.map((kind) => ({
    kind: kind === 'reading' || kind === 'notes' || kind === 'checklist' ? 'page' : kind,
    key: `part-${kind}`,
    name: pick(random, itemNames[kind] ?? ['Week {week}']),
    blocks:
      kind === 'checklist'
        ? [
            {
              kind: 'fixed-text',
              key: 'tick',
              html: `<ul>${someOf(random, fixedTexts, 3)
                .map((text) => `<li>${text}</li>`)
                .join('')}</ul>`,
            },
          ]
        : kind === 'assessment'
          ? []
          : page(),
    ...(kind === 'checklist' ? { position: 'last' } : {}),
    ...(kind === 'assignment'
      ? {
          repeat: pick(random, [
            { per: 'week', every: 2 },
            { per: 'week' },
            { per: 'week', every: 2, from: 1 },
          ]),
          settings: { points: 100 },
        }
      : {}),
    ...(kind === 'assessment'
      ? {
          repeat: pick(random, [
            { per: 'week' },
            { per: 'week', every: 3 },
            { per: 'week', from: 2 },
          ]),
          settings: { points: 20 },
        }
      : {}),
  }))
  const read = readDocument(Template, {
    schema: 'wickerframe.template/1',
    key: 'generated',
    title: 'Generated',
    naming: { courseName: '{code} {title}', courseLabel: '{code}' },
    home: {
      name: '{code} home',
      blocks: [{ kind: 'title', key: 'title', text: '{code} {title}' }],
    },
    parts: [
      {
        kind: 'module',
        key: 'opening',
        name: 'Start here',
        position: 'first',
        items: [
          {
            kind: 'page',
            key: 'welcome',
            name: 'Welcome to {code}',
            blocks: [
              {
                kind: 'fixed-text',
                key: 'hello',
                html: '<p>Welcome. Begin with the first week.</p>',
              },
            ],
          },
        ],
      },
      {
        kind: 'module',
        key: 'learning',
        name: pick(random, moduleNames),
        repeat: { per: 'week' },
        items,
      },
    ],
  })
  if (!read.ok) throw new Error(JSON.stringify(read.problems))
  return read.value
}

const restyled = ['wk {n}', 'WEEK {n} – {t}', 'W{n} {t}', '{t} (week {n})', 'The week of {t}']

/**
 * A model course made from a template of its own, its places filled in differently in every week; with edits it is as
 * courses are after a year: some weeks renamed, items taken out, added and renamed, a word changed in fixed text, later
 * weeks never filled in.
 */
export const modelCase = (facts: Facts, seed: number, edits: boolean): ModelCase => {
  const random = seededRandom(seed)
  const template = randomTemplate(random)
  const expansion = expandCourse({ template, facts, mintFrom: `model-${seed}` })
  if (!expansion.ok) throw new Error(JSON.stringify(expansion.problems))
  let next = 0
  const deployed = deployInto(
    expansion.value,
    shell('model', 'New'),
    {
      newId: (kind) => `${kind}-${++next}`,
      urlOf: (id) => `/courses/model/${id}`,
      rewriteHtml: (html) => html,
    },
    '2026-09-01',
  )
  const course = withRecordedIdentity(deployed.course, identityOf(deployed.base))
  const partOf = new Map<string, string>()
  const unfilledFrom = edits && random() < 0.5 ? 9 + Math.floor(random() * 4) : 99
  course.modules.forEach((module, m) => {
    const number = module.recordedAs?.number ?? 0
    for (const item of itemsIn(module)) {
      if (module.recordedAs?.part === 'learning' && item.recordedAs)
        partOf.set(item.id, item.recordedAs.part)
      if (item.html === null) continue
      for (const prompt of prompts)
        if (number < unfilledFrom)
          item.html = item.html.replaceAll(
            `<p>${prompt}</p>`,
            () =>
              `<p>${sentence(random)}. ${sentence(random)}, ${sentence(random).toLowerCase()}.</p>`,
          )
      item.html = item.html.replace(
        /<div data-wicker[^>]*>([\s\S]*?)<\/div>/g,
        random() < 0.5 ? '<section>$1</section>' : '$1',
      )
    }
    if (!edits || module.recordedAs?.part !== 'learning') return
    const topic = facts.topics[String(number)] ?? sentence(random)
    if (random() < 0.15)
      module.name = pick(random, restyled).replace('{n}', String(number)).replace('{t}', topic)
    module.children = module.children.filter(() => random() >= 0.05)
    for (const item of itemsIn(module)) {
      if (random() < 0.06)
        item.name = `${item.name} (${pick(random, ['new', 'please read', 'revised', 'ask me'])})`
      if (item.html !== null && random() < 0.08)
        item.html = item.html.replace(
          /\b(class|week|work|name|file|chart)\b/,
          pick(random, ['group', 'days', 'task', 'title', 'copy']),
        )
    }
    if (random() < 0.12)
      module.children.splice(Math.floor(random() * (module.children.length + 1)), 0, {
        id: `own-${seed}-${m}`,
        kind: 'page',
        name: sentence(random),
        published: true,
        staffOnly: false,
        opensAt: null,
        dueAt: null,
        closesAt: null,
        points: null,
        category: null,
        html: `<p>${sentence(random)}.</p>`,
        url: null,
        target: null,
        studentWork: false,
      })
  })
  // Nothing of what deployment recorded is known of a model course.
  const bare = JSON.parse(
    JSON.stringify(course, (field, value: unknown) => (field === 'recordedAs' ? undefined : value)),
  ) as Course
  return { course: bare, facts, template, partOf }
}
