import {
  applyEdit,
  firstHouseStyle,
  newItem,
  newLayer,
  newModule,
  templateFromSentences,
  usualSentences,
  type Block,
  type Template,
  type TemplateEdit,
} from '@wickerframe/core'

import { drawingOf } from './drawings.ts'

const edited = (template: Template, edits: readonly TemplateEdit[]): Template =>
  edits.reduce((now, edit) => {
    const next = applyEdit(now, edit)
    if (!next.ok)
      throw new Error(
        `the demo’s edit ${JSON.stringify(edit).slice(0, 120)}: ${JSON.stringify(next.problems)}`,
      )
    return next.value.template
  }, template)
const fixed = (key: string, html: string): Block => ({
  kind: 'fixed-text',
  key,
  strength: 'must',
  html,
})
const set = (part: string | null, field: string[], was: unknown, value: unknown): TemplateEdit => ({
  edit: 'set-field',
  part,
  field,
  was,
  value,
})

/** The Workshop Standard: four units in place of weeks. */
export const workshopStandard = (): Template => {
  const made = templateFromSentences({
    ...usualSentences(),
    title: 'Workshop Standard',
    modalities: ['on-campus'],
    lengths: [16, 15],
    per: 'unit',
    units: 4,
    named: 'number-dates',
    opens: 'all-at-once',
    pause: false,
    ends: true,
    grading: 'points',
    holds: [
      { what: 'overview', strength: 'must', often: 'each', points: null },
      { what: 'notes', strength: 'should', often: 'each', points: null },
      { what: 'assignment', strength: 'must', often: 'each', points: 100 },
      { what: 'checklist', strength: 'must', often: 'each', points: null },
    ],
  })
  if (!made.ok) throw new Error(JSON.stringify(made.problems))
  const banner = drawingOf('banner-engine-room')
  return {
    ...made.value,
    summary: 'For courses taught in the workshops, in four units.',
    houseStyle: { ...firstHouseStyle, headings: 'line', corners: 'round' },
    assets: [banner],
    home: {
      ...made.value.home,
      blocks: made.value.home.blocks.map((block): Block =>
        block.kind === 'title'
          ? {
              kind: 'banner',
              key: block.key,
              strength: block.strength,
              image: banner.key,
              above: '{code} · {term}',
              text: '{title}',
            }
          : block,
      ),
    },
  }
}

/** The Navigation programme’s layer on the Harbour Standard. */
export const navigationProgramme = (upper: Template): Template => ({
  ...edited(newLayer(upper, 'navigation-programme', 'Navigation programme'), [
    set(null, ['appliesTo', 'departments'], [], ['NAV']),
    {
      edit: 'add-part',
      parent: 'resources',
      at: 1,
      part: {
        ...newItem('page', 'chart-folio', 'The {code} chart folio'),
        blocks: [
          { kind: 'title', key: 'title', strength: 'must', text: 'The {code} chart folio' },
          {
            kind: 'reading',
            key: 'charts',
            strength: 'must',
            label: 'Charts and books',
            works: [
              { text: 'The college’s training chart of Kestrel Sound, current edition' },
              { text: 'Tide tables of the year', minutes: 20 },
            ],
          },
          {
            kind: 'video',
            key: 'folding',
            strength: 'should',
            title: 'How a folio is kept: folding, marking, correcting',
            url: 'https://film.kestrelsound.example/watch/chart-folio',
            minutes: 6,
            captions: true,
            transcript: 'https://film.kestrelsound.example/transcript/chart-folio',
          },
        ],
      },
    },
    {
      edit: 'add-part',
      parent: 'week',
      at: 1,
      part: {
        ...newItem('page', 'chart-work', 'Week {week} chart work'),
        strength: 'should',
        inGroup: 'per-week',
        blocks: [
          {
            kind: 'checklist',
            key: 'gear',
            strength: 'must',
            label: 'Bring to the chart table',
            lines: [
              'Dividers, parallel rule and a soft pencil',
              'The chart of the week',
              'Your plotting log',
            ],
          },
          {
            kind: 'fill-in',
            key: 'plot',
            strength: 'must',
            type: 'rich-text',
            scope: 'place',
            earlierPrompts: [],
            prompt: 'Say which position, course or passage is plotted this week.',
          },
        ],
      },
    },
    {
      edit: 'add-block',
      part: 'welcome',
      at: 1,
      block: {
        kind: 'letter',
        key: 'letter',
        strength: 'should',
        left: { as: 'proposed' },
        html: '<p>Dear all,</p><p>navigation is learned with a pencil. Come to every chart session, make your mistakes on paper, and ask while the plot is still wet.</p><p>I look forward to sailing with you.</p>',
      },
    },
    {
      edit: 'add-block',
      part: 'welcome',
      at: 4,
      block: {
        kind: 'take-care',
        key: 'not-for-navigation',
        strength: 'must',
        html: '<p>Training charts are never used for navigation afloat.</p>',
      },
    },
    set('quiz', ['strength'], 'may', 'should'),
  ]),
  summary:
    'What every navigation course adds to the Harbour Standard: chart work each week, a chart folio.',
})

/** Distance of the visible horizon: common practice, the figure from memory. */
const horizon =
  '<math alttext="D is about 2.08 times the square root of h"><semantics><mrow><mi>D</mi><mo>≈</mo><mn>2.08</mn><msqrt><mi>h</mi></msqrt></mrow><annotation encoding="application/x-tex">D \\approx 2.08\\sqrt{h}</annotation></semantics></math>'
const minutes =
  '<math alttext="t equals 60 d over v"><semantics><mrow><mi>t</mi><mo>=</mo><mfrac><mrow><mn>60</mn><mi>d</mi></mrow><mi>v</mi></mfrac></mrow><annotation encoding="application/x-tex">t = \\frac{60d}{v}</annotation></semantics></math>'

/** The shared-course layer of NAV 110, which its class sections use: the subject itself. */
export const coastalNavigation = (upper: Template): Template => {
  const topics = ['Charts and scales', 'Position lines', 'The compass']
  return {
    ...edited(newLayer(upper, 'nav-110', 'NAV 110 Coastal Navigation'), [
      ...[
        ['fix-position', 'Fix a position by two bearings and a depth'],
        ['predict-tide', 'Predict the height of tide for any time of day'],
        ['plan-passage', 'Plan a coastal passage and say where it can be broken off'],
      ].map(([key = '', text = '']) => set(null, ['outcomes', key], null, { key, text })),
      set(
        'week',
        ['objectives'],
        [],
        [
          {
            key: 'plot-weekly',
            text: 'Plot the work of the week within a tenth of a mile',
            serves: ['fix-position'],
          },
          {
            key: 'use-tables',
            text: 'Take what is needed from the tables without help',
            serves: ['predict-tide'],
          },
        ],
      ),
      {
        edit: 'add-block',
        part: 'welcome',
        at: 5,
        block: {
          kind: 'fixed-text',
          key: 'by-heart',
          strength: 'must',
          html: `<h3>Two formulas to know by heart</h3><p>How far it is to the horizon, in nautical miles, from a height of eye <em>h</em> in metres: ${horizon}.</p><p>How many minutes a distance <em>d</em> takes at a speed <em>v</em> in knots: ${minutes}.</p>`,
        },
      },
      {
        edit: 'add-block',
        part: 'welcome',
        at: 6,
        block: {
          kind: 'fold',
          key: 'why-two',
          strength: 'may',
          summary: 'Where the 2.08 comes from',
          html: '<p>From a circle as big as the earth, a height far smaller than it, and a little for the bend of light in the air. You are not asked for it in any quiz.</p>',
        },
      },
      {
        edit: 'add-block',
        part: 'syllabus',
        at: 2,
        block: {
          kind: 'outcome-map',
          key: 'map',
          strength: 'should',
          label: 'What you will be able to do, and where you learn it',
        },
      },
      set('assignment', ['assesses'], [], ['plot-weekly', 'plan-passage']),
      set('quiz', ['assesses'], [], ['use-tables']),
      {
        edit: 'set-block',
        part: 'syllabus',
        block: 'aims',
        field: 'answer',
        was: null,
        value:
          '<ul><li>Fix a position by two bearings and a depth.</li><li>Predict the height of tide for any time of day.</li><li>Plan a coastal passage and say where it can be broken off.</li></ul>',
      },
      set('week', ['exceptions', 'week-first'], null, {
        key: 'week-first',
        anchor: { at: 'first' },
        omit: false,
        leaveOut: [],
        set: [],
        add: [
          {
            ...newItem('page', 'first-bearings', 'First bearings: what the course is'),
            blocks: [
              fixed(
                'words',
                `<p>We begin with ${topics.join(', ').toLowerCase()}. Nobody needs to have been at sea.</p>`,
              ),
            ],
          },
        ],
      }),
      set('week', ['exceptions', 'week-last-of-unit'], null, {
        key: 'week-last-of-unit',
        anchor: { at: 'last-of-unit' },
        omit: false,
        leaveOut: [],
        set: [],
        add: [
          {
            ...newItem('assessment', 'unit-review', '{code} · Review after week {week}'),
            strength: 'should',
            settings: {
              points: 50,
              category: 'Quizzes',
              due: { from: 'week-end', days: 0, time: '23:59' },
            },
            assesses: ['fix-position', 'predict-tide'],
          },
        ],
      }),
      {
        edit: 'add-part',
        parent: null,
        at: 3,
        part: {
          ...newModule('sea-day', 'The day at sea'),
          span: 'course',
          strength: 'should',
          items: [
            {
              ...newItem('page', 'sea-day-orders', 'Orders for the day at sea'),
              blocks: [
                {
                  kind: 'assignment-brief',
                  key: 'brief',
                  strength: 'must',
                  why: '<p>To fix positions from a moving deck.</p>',
                  whatToDo: '<p>Take six fixes between the east slip and the outer buoy.</p>',
                  handIn: '<p>The plotting sheet, signed by the mate.</p>',
                  judged: '',
                },
              ],
            },
            {
              ...newItem('event', 'sea-day-sailing', 'Sailing day: aboard by half past seven'),
              settings: {
                due: { from: 'term-end', days: -7, time: '07:30' },
                minutes: 600,
                where: 'East slip, berth 2',
              },
            },
          ],
        },
      },
    ]),
    // A layer may say what stands unsaid above.
    units: 4,
    summary: 'The subject content that every class section of NAV 110 shares.',
  }
}

/** What the designer has begun to change in the Harbour Standard since its first version. */
export const harbourDraftEdits: readonly TemplateEdit[] = [
  set('week', ['exceptions', 'week-pause'], null, {
    key: 'week-pause',
    anchor: { at: 'pause' },
    omit: false,
    name: 'Week {week} · {dates} · no class',
    leaveOut: 'all',
    set: [],
    add: [
      {
        ...newItem('page', 'pause-notice', 'No class this week'),
        blocks: [
          fixed(
            'notice',
            '<p>The college pauses this week. Nothing is due, and questions are answered when we are back.</p>',
          ),
        ],
      },
    ],
  }),
  set('week', ['exceptions', 'week-first'], null, {
    key: 'week-first',
    anchor: { at: 'first' },
    omit: false,
    leaveOut: [],
    set: [],
    add: [
      {
        ...newItem('page', 'how-placed', 'How are you placed?'),
        strength: 'should',
        blocks: [
          {
            kind: 'fill-in',
            key: 'questions',
            strength: 'should',
            type: 'list',
            scope: 'place',
            earlierPrompts: [],
            prompt: 'Three questions to your students about time, tools and experience.',
          },
        ],
      },
    ],
  }),
  set('reading', ['strength'], 'should', 'may'),
  { edit: 'move-part', part: 'weather', parent: 'week', at: 2 },
  set('questions', ['name'], 'Questions for everyone', 'Ask the crew: questions for everyone'),
]
