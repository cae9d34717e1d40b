import {
  firstHouseStyle,
  newItem,
  newLayer,
  templateFromSentences,
  usualSentences,
  type Block,
  type Template,
  type TemplateEdit,
} from '@wickerframe/core'

import { drawingOf } from './drawings.ts'
import { edited, fixed, set } from './editing.ts'

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
        html: '<p>Dear {reader, all},</p><p>navigation is learned with a pencil. Come to every chart session, make your mistakes on paper, and ask while the plot is still wet.</p><p>I look forward to sailing with you.</p>',
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
