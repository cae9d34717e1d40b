import {
  everyItem,
  newItem,
  newLayer,
  newModule,
  type Block,
  type Objective,
  type Template,
} from '@wickerframe/core'
import { edited, fixed, set } from './editing.ts'
import { demoTemplate } from './templates.ts'

/** Distance of the visible horizon: common practice, the figure from memory. */
const horizon =
  '<math alttext="D is about 2.08 times the square root of h"><semantics><mrow><mi>D</mi><mo>≈</mo><mn>2.08</mn><msqrt><mi>h</mi></msqrt></mrow><annotation encoding="application/x-tex">D \\approx 2.08\\sqrt{h}</annotation></semantics></math>'
const minutes =
  '<math alttext="t equals 60 d over v"><semantics><mrow><mi>t</mi><mo>=</mo><mfrac><mrow><mn>60</mn><mi>d</mi></mrow><mi>v</mi></mfrac></mrow><annotation encoding="application/x-tex">t = \\frac{60d}{v}</annotation></semantics></math>'

const formulas: Block = fixed(
  'by-heart',
  `<h3>Two formulas to know by heart</h3><p>How far it is to the horizon, in nautical miles, from a height of eye <em>h</em> in metres: ${horizon}.</p><p>How many minutes a distance <em>d</em> takes at a speed <em>v</em> in knots: ${minutes}.</p>`,
)

/** What a whistle or a light says: common practice afloat, from memory. */
const signals: Block = {
  kind: 'table',
  key: 'signals',
  strength: 'must',
  caption: 'What you hear, and what it says',
  header: ['Sound', 'It says'],
  rows: [
    ['One short blast', 'I am altering my course to starboard'],
    ['Two short blasts', 'I am altering my course to port'],
    ['Three short blasts', 'My engines are going astern'],
    ['Five short blasts or more', 'I do not understand what you mean to do'],
  ],
}

/** The files in which the study planner comes, as the Distance Standard has them. */
const studyPlanners = () =>
  demoTemplate('distance-standard.json').files.filter(({ key }) => key.startsWith('study-planner'))

/** What the standard above asks of each week’s objectives. */
const weekObjectives = (upper: Template): readonly Objective[] => {
  const asked = everyItem(upper)
    .find(({ key }) => key === 'week-overview')
    ?.blocks.find(({ key }) => key === 'objectives')
  if (asked?.kind !== 'objectives') throw new Error('no week overview asks for objectives')
  return asked.objectives
}
const keyOf = ({ key }: { key: string }): string => key

/** The shared-course layer of NAV 110, which its class sections use: the subject itself. */
export const coastalNavigation = (upper: Template): Template => {
  const planners = studyPlanners()
  const topics = ['Charts and scales', 'Position lines', 'The compass']
  return {
    ...edited(newLayer(upper, 'nav-110', 'NAV 110 Coastal Navigation'), [
      ...[
        ['fix-position', 'Fix a position by two bearings and a depth'],
        ['predict-tide', 'Predict the height of tide for any time of day'],
        ['plan-passage', 'Plan a coastal passage and say where it can be broken off'],
      ].map(([key = '', text = '']) => set(null, ['outcomes', key], null, { key, text })),
      set(null, ['keptBlocks', 'by-heart'], null, {
        key: 'by-heart',
        title: 'Two formulas to know by heart',
        block: formulas,
      }),
      ...planners.map((file) => set(null, ['files', file.key], null, file)),
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
        block: { kind: 'kept-block', key: 'by-heart', strength: 'must', kept: 'by-heart' },
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
      {
        edit: 'add-block',
        part: 'syllabus',
        at: 3,
        block: {
          kind: 'schedule',
          key: 'week-by-week',
          strength: 'should',
          label: 'Week by week in {term}',
          prompt: 'Say what the class does, and where',
          left: { as: 'asked' },
        },
      },
      {
        edit: 'add-block',
        part: 'week-overview',
        at: 2,
        block: {
          kind: 'in-short',
          key: 'in-short',
          strength: 'should',
          left: { as: 'proposed' },
          html: '<p>{topic}: one session at the chart table, one evening with the tables, one quiz.</p>',
        },
      },
      {
        edit: 'add-part',
        parent: 'resources',
        at: 2,
        part: {
          ...newItem('page', 'at-a-glance', 'At a glance: signals, formulas, a planner'),
          blocks: [
            { kind: 'title', key: 'title', strength: 'must', text: 'At a glance' },
            {
              kind: 'from-elsewhere',
              key: 'lights',
              strength: 'should',
              title: 'Lights on the water at night',
              url: 'https://film.kestrelsound.example/show/lights-at-night',
              shape: 'wide',
              minutes: 4,
              about: 'Turn the vessel and see which of its lights you would see.',
            },
            signals,
            { kind: 'kept-block', key: 'by-heart', strength: 'must', kept: 'by-heart' },
            {
              kind: 'document',
              key: 'planner',
              strength: 'should',
              label: '',
              title: 'A planner for your weeks',
              files: planners.map(({ key }) => key),
            },
          ],
        },
      },
      set('quiz', ['questions'], null, {
        list: [
          {
            key: 'three-blasts',
            body: {
              kind: 'one-answer',
              text: '<p>You hear three short blasts ahead. What does the other vessel tell you?</p>',
              points: 4,
              feedback: 'The table of signals stands on “At a glance”.',
              choices: [
                { text: 'Its engines are going astern', right: true },
                { text: 'It alters course to port', right: false },
                { text: 'It does not understand you', right: false },
              ],
            },
          },
          {
            key: 'to-the-horizon',
            body: {
              kind: 'short-answer',
              text: `<p>How many nautical miles is it to the horizon from a height of eye of 4 metres? (${horizon})</p>`,
              points: 6,
              answers: ['4.16', '4.2', 'about 4'],
            },
          },
          {
            key: 'checked-again',
            left: 'proposed',
            body: {
              kind: 'essay',
              text: '<p>Say in three sentences what you would check again in the plot of this week.</p>',
              points: 10,
            },
          },
        ],
      }),
      {
        edit: 'add-block',
        part: 'chart-work',
        at: 0,
        block: {
          kind: 'objectives',
          key: 'aims',
          strength: 'should',
          label: 'After this session you can',
          objectives: [
            {
              key: 'chart-work-aim',
              text: 'Say which step you will check twice next time',
              serves: ['fix-position'],
            },
          ],
          left: { as: 'proposed' },
        },
      },
      // What instructors are asked to say of each week serves what every week is for.
      {
        edit: 'set-block',
        part: 'week-overview',
        block: 'objectives',
        field: 'objectives',
        was: weekObjectives(upper),
        value: weekObjectives(upper).map((objective) => ({
          ...objective,
          serves: ['plot-weekly', 'use-tables'],
        })),
      },
      set(
        'assignment',
        ['assesses'],
        [],
        ['plot-weekly', 'chart-work-aim', 'plan-passage', ...weekObjectives(upper).map(keyOf)],
      ),
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
