import {
  type Change,
  type Course,
  type CourseItem,
  type CourseModule,
  type QuestionsWritten,
  everyModule,
  itemsIn,
} from '@wickerframe/core'
import { demoFile } from './files.ts'
import { pick } from './random.ts'

/** What an instructor does to a course after it was deployed, as changes on the platform. */
type Edit = (course: Course, random: () => number) => Change[]

const items = (course: Course): CourseItem[] => [
  ...everyModule(course.modules).flatMap((module) => itemsIn(module)),
  ...course.stray,
]
const itemsNamed = (course: Course, name: RegExp): CourseItem[] =>
  items(course).filter((item) => name.test(item.name))
const weekModules = (course: Course): CourseModule[] =>
  course.modules.filter((module) => /^Week \d+ /.test(module.name))
const weekOf = (module: CourseModule): number => Number(/\d+/.exec(module.name)?.[0])

const setHtml = (item: CourseItem, html: string): Change[] =>
  html === item.html ? [] : [{ change: 'set-item', id: item.id, fields: { html } }]

const answers: readonly (readonly [RegExp, readonly string[]])[] = [
  [
    /Greet your students in two or three sentences and say why this course matters at sea\./,
    [
      'Welcome aboard. In this course you learn what keeps a ship and her people safe, and you will use it from the first day of your first watch.',
      'Good morning, everyone, and welcome. What we do here is what your shipmates will count on you for, at three in the morning, in bad weather.',
    ],
  ],
  [
    /Your name and the e-mail address students should write to\./,
    [
      'Write to <a href="mailto:harbour.desk@kestrelsound.example">harbour.desk@kestrelsound.example</a>, any day of the week; ask for me by name.',
    ],
  ],
  [
    /Days, times and the room or link where students find you\./,
    [
      'Tuesdays and Thursdays, 13:00 to 14:30, room 214 above the boat shed.',
      'Mondays 10:00 to 11:30 in the Chart Room, or by appointment.',
    ],
  ],
  [
    /How soon you answer, and where students can talk to you live\./,
    ['Within a working day; we talk live on Wednesdays at 18:00.'],
  ],
  [
    /Say who you are, where you have sailed or worked, and what you like about this subject\./,
    [
      'I went to sea at seventeen, worked the coast boats for eleven years, and have taught here since the new quay was built.',
    ],
  ],
  [
    /List three to six things a student can do at the end, each beginning with a verb you could test\./,
    [
      'Explain how the gear works. Operate it safely under supervision. Record what was done. Judge when to ask for help.',
    ],
  ],
  [
    /In two or three sentences, say what this week is about and why it matters at sea\./,
    [
      'This week we take the subject apart step by step, first ashore and then on the training boat, so that nothing surprises you on watch.',
      'We look at what goes wrong most often, why it does, and what a careful hand does before it happens.',
    ],
  ],
  [
    /Two or three objectives, each beginning with a verb you could test\./,
    ['Describe the parts. Carry out the procedure. Write it up in the log.'],
  ],
  [
    /Chapters, charts or notices to read, with page numbers\./,
    ['Harbour handbook, pages 12 to 31; the notices on the board by the slip.'],
  ],
  [
    /One open question students can argue about from their own experience\./,
    ['When did a shortcut save you time, and when did it cost you more?'],
  ],
  [
    /Say what students hand in, in which form, and how long it should take\./,
    ['Hand in a written log of two pages; allow three hours for it.'],
  ],
  [
    /Links and files that students need all term\./,
    [
      'All of these lie in the chart room:</p><ul><li>the tide tables</li><li>the signal book</li><li>the college’s own chart folio</li></ul><p>Hand them back before the watch changes.',
    ],
  ],
]

/** Fills in what the page asks, up to a week; a prompt that is left alone stays. */
const fillIn =
  (upToWeek: number, share: number): Edit =>
  (course, random) =>
    items(course).flatMap((item) => {
      if (item.html === null) return []
      const week = Number(
        /Week (\d+)|Discussion (\d+)/.exec(item.name)?.slice(1).find(Boolean) ??
          /Assignment (\d+)/
            .exec(item.name)
            ?.slice(1)
            .map((n) => Number(n) * 2)[0] ??
          0,
      )
      if (week > upToWeek) return []
      let html = item.html
      for (const [prompt, texts] of answers)
        if (prompt.test(html) && random() < share)
          html = html.replace(prompt, () => pick(random, texts))
      return setHtml(item, html)
    })

const guidance = /<(div|aside|section)\b[^>]*data-wicker-block="advice"[^>]*>[\s\S]*?<\/\1>/
const takeNotesOut =
  (upToWeek: number): Edit =>
  (course) =>
    items(course).flatMap((item) => {
      const week = Number(/Week (\d+)/.exec(item.name)?.[1] ?? 0)
      return item.html === null || week > upToWeek
        ? []
        : setHtml(item, item.html.replace(guidance, ''))
    })

const ofTheirSyllabus = [
  ['By when is a discussion’s first post written?', 'Thursday', 'Sunday'],
  ['What do you do if you cannot hand in on time?', 'Write before it is due', 'Hand in nothing'],
] as const
/** Puts two questions about the syllabus in place of the samples. */
const askAboutSyllabus: Edit = (course) =>
  itemsNamed(course, /^Syllabus quiz$/).map((item) => {
    const samples = (item.questions ?? []).filter(({ body }) => body.text.includes('Sample:'))
    const order: QuestionsWritten['order'] = [
      ...(item.questions ?? [])
        .filter((question) => !samples.includes(question))
        .map(({ id }) => ({ id })),
      ...ofTheirSyllabus.map(([text, right, wrong], i) => ({
        clientId: `own-${i}`,
        body: {
          kind: 'one-answer' as const,
          text: `<p>${text}</p>`,
          points: 2,
          choices: [
            { text: right, right: true },
            { text: wrong, right: false },
          ],
          shuffled: true,
        },
      })),
    ]
    const questions = { order, remove: samples.map(({ id }) => id) }
    return { change: 'set-item', id: item.id, fields: { questions } }
  })

/** Puts the syllabus that they filled in where the blank form was. */
const fillInSyllabus: Edit = (course) =>
  itemsNamed(course, / syllabus to keep$/).map((item) => ({
    change: 'set-item',
    id: item.id,
    fields: {
      file: { name: 'Syllabus.docx', content: demoFile('syllabus-filled-in.docx').content },
    },
  }))

const publish: Edit = () => [{ change: 'set-course', published: true }]
const showStaffNotes: Edit = (course) =>
  itemsNamed(course, /^Notes for the instructor$/).map((item) => ({
    change: 'set-item',
    id: item.id,
    fields: { published: true, staffOnly: false },
  }))
const hideWeek =
  (week: number): Edit =>
  (course) =>
    weekModules(course)
      .filter((module) => weekOf(module) === week)
      .map((module) => ({ change: 'set-module', id: module.id, fields: { published: false } }))
const deleteItems =
  (name: RegExp): Edit =>
  (course) =>
    itemsNamed(course, name).map((item) => ({ change: 'remove-item', id: item.id }))
const ownWeekNames: Edit = (course, random) => {
  const style = pick(random, ['wk {n} - {t}', 'Week {n}: {t}', 'W{n} {t}', 'Week {n} ({t})'])
  return weekModules(course)
    .filter((module) => weekOf(module) <= 6)
    .map((module) => ({
      change: 'set-module',
      id: module.id,
      fields: {
        name: style
          .replace('{n}', String(weekOf(module)))
          .replace('{t}', module.name.split(' · ').at(-1) ?? ''),
      },
    }))
}
const shiftDay = (text: string): string =>
  text.replace(
    /([A-Z][a-z]{2}) (\d+)/g,
    (_, month: string, day: string) => `${month} ${Math.min(31, Number(day) + 1)}`,
  )
const lastYearsDates: Edit = (course) =>
  weekModules(course)
    .filter((module) => weekOf(module) <= 8)
    .map((module) => {
      const parts = module.name.split(' · ')
      return {
        change: 'set-module',
        id: module.id,
        fields: { name: [parts[0], shiftDay(parts[1] ?? ''), ...parts.slice(2)].join(' · ') },
      }
    })
const lastYearsPage: Edit = (course) =>
  itemsNamed(course, /^Week 2 overview$/).flatMap((item) =>
    setHtml(
      item,
      `${item.html}<p>Boat day this year is Saturday, September 20, 2025, from the east slip.</p>`,
    ),
  )
const duplicateAssignment: Edit = (course) =>
  itemsNamed(course, /Assignment 1/)
    .slice(0, 1)
    .map((item) => ({ change: 'duplicate-item', id: item.id, clientId: 'copy' }))
const checklistFirst: Edit = (course) =>
  weekModules(course)
    .filter((module) => weekOf(module) <= 4)
    .flatMap((module) => {
      const checklist = itemsIn(module).find((item) => item.name.endsWith(' checklist'))
      return checklist
        ? [{ change: 'move-item' as const, id: checklist.id, module: module.id, at: 0 }]
        : []
    })
const alterPromise: Edit = (course) =>
  itemsNamed(course, /^Welcome to/).flatMap((item) =>
    setHtml(item, (item.html ?? '').replace('within one working day', 'when I get round to it')),
  )
const noHome: Edit = (course) =>
  itemsNamed(course, /syllabus/)
    .slice(0, 1)
    .map((item) => ({ change: 'set-home', item: item.id }))
const ownPage: Edit = (course) => {
  const week = weekModules(course)[1]
  return week
    ? [
        {
          change: 'create-item',
          clientId: 'own',
          module: week.id,
          at: 2,
          kind: 'page',
          fields: {
            name: 'What the old hands say',
            html: '<p>Three skippers on their first winter. Read before Thursday.</p>',
          },
        },
      ]
    : []
}
const noDue: Edit = (course) =>
  itemsNamed(course, /Assignment 1/)
    .slice(0, 1)
    .map((item) => ({ change: 'set-item', id: item.id, fields: { dueAt: null } }))
const intoUnits: Edit = (course) => {
  const weeks = weekModules(course)
  const per = Math.ceil(weeks.length / 4)
  return [0, 1, 2, 3].flatMap((unit): Change[] => {
    const own = weeks.slice(unit * per, (unit + 1) * per)
    const first = own[0]
    const last = own.at(-1)
    if (!first || !last) return []
    const clientId = `unit-${unit + 1}`
    return [
      {
        change: 'create-module',
        clientId,
        parent: null,
        at: 1 + unit,
        fields: { name: `Unit ${unit + 1} · Weeks ${weekOf(first)}–${weekOf(last)}` },
      },
      ...own.flatMap((module): Change[] => [
        ...itemsIn(module).map((item): Change => ({
          change: 'move-item',
          id: item.id,
          module: `ref:${clientId}`,
          at: null,
        })),
        { change: 'remove-module', id: module.id },
      ]),
    ]
  })
}

/** What sort of term an instructor is having. The names are for people who read the demo. */
export const stories: Readonly<Record<string, readonly Edit[]>> = {
  perfect: [askAboutSyllabus, fillInSyllabus, fillIn(16, 1), takeNotesOut(16), publish],
  'nearly there': [
    askAboutSyllabus,
    fillInSyllabus,
    fillIn(5, 1),
    takeNotesOut(5),
    publish,
    ownPage,
  ],
  'own week names': [
    askAboutSyllabus,
    fillInSyllabus,
    fillIn(6, 1),
    takeNotesOut(6),
    publish,
    ownWeekNames,
  ],
  'last year’s dates': [fillIn(6, 1), takeNotesOut(6), publish, lastYearsDates, lastYearsPage],
  'notes left standing': [fillIn(4, 1), publish],
  'staff notes shown': [
    askAboutSyllabus,
    fillInSyllabus,
    fillIn(5, 1),
    takeNotesOut(5),
    publish,
    showStaffNotes,
  ],
  'half done': [fillIn(2, 0.6), takeNotesOut(2), publish, deleteItems(/^Week [35] checklist$/)],
  'this week hidden': [fillIn(5, 1), takeNotesOut(5), publish, hideWeek(3), duplicateAssignment],
  'order of her own': [
    askAboutSyllabus,
    fillInSyllabus,
    fillIn(6, 1),
    takeNotesOut(6),
    publish,
    checklistFirst,
    deleteItems(/^Week [12] weather chart$/),
  ],
  'changed the promise': [fillIn(5, 1), takeNotesOut(5), publish, alterPromise, noDue],
  'home lost': [fillIn(4, 1), takeNotesOut(4), publish, noHome],
  'four units': [
    askAboutSyllabus,
    fillInSyllabus,
    fillIn(16, 1),
    takeNotesOut(16),
    publish,
    intoUnits,
  ],
  'not begun': [],
}

const order = [
  'perfect',
  'nearly there',
  'staff notes shown',
  'perfect',
  'own week names',
  'notes left standing',
  'nearly there',
  'perfect',
  'last year’s dates',
  'half done',
  'perfect',
  'this week hidden',
  'nearly there',
  'order of her own',
  'perfect',
  'changed the promise',
  'four units',
  'home lost',
  'nearly there',
  'not begun',
]

/** The story of the course at a place in the roster: the same every time. */
export const storyAt = (index: number): string => order[index % order.length] ?? 'perfect'
