import { describe, expect, it } from 'vitest'
import { readDocument } from '../document/index.ts'
import { firstHouseStyle } from '../houseStyle/index.ts'
import { exampleTemplate } from '../rules/example/exampleCourse.ts'
import {
  everyItem,
  isModule,
  newItem,
  Template,
  type Item,
  type ItemFile,
  type TemplateFile,
} from '../template/index.ts'
import { exampleForm } from '../testing/exampleFiles.testing.ts'
import { proofChecks, proofread } from './index.ts'

type Draft = ReturnType<typeof exampleTemplate>
const remarksOn = (change: (template: Draft, item: (key: string) => Item) => void) => {
  const template = exampleTemplate()
  template.home.blocks.push({
    kind: 'contact-card',
    key: 'contact',
    element: 'instructor-contact',
    strength: 'must',
    label: 'Your instructor',
  })
  change(template, (key) => everyItem(template).find((item) => item.key === key) as Item)
  const read = readDocument(Template, template)
  if (!read.ok) throw new Error(JSON.stringify(read.problems))
  return proofread(read.value).map(
    (remark) =>
      `${remark.severity} ${remark.check} ${remark.part ?? 'template'}${remark.block ? `/${remark.block}` : ''}: ${remark.message}`,
  )
}
const fixed = (key: string, html: string) => ({
  kind: 'fixed-text' as const,
  key,
  strength: 'must' as const,
  html,
})
const week = (template: Draft) => {
  const part = template.parts[1]
  if (!part || !isModule(part)) throw new Error('the second part is the week')
  return part
}

describe('proofreading', () => {
  it('says nothing of a sound template', () => {
    expect(remarksOn(() => {})).toEqual([])
  })
  const asking = (text: string) => (_: Draft, item: (key: string) => Item) =>
    void (item('quiz').questions = {
      list: [{ key: 'q', body: { kind: 'true-or-false', text, points: 20, right: true } }],
    })
  const handingOut =
    (file: ItemFile | undefined, held: Partial<TemplateFile> = {}) =>
    (template: Draft) => {
      template.files.push({ ...exampleForm('form'), ...held })
      week(template).items.unshift({
        ...newItem('file', 'handout', 'Handout {week}'),
        ...(file ? { file } : {}),
      })
    }
  const cases: [string, Parameters<typeof remarksOn>[0], string[]][] = [
    ['a file that is there', handingOut({ key: 'form' }), []],
    ['a file of the instructor’s own', handingOut({ left: 'theirs' }), []],
    [
      'what hands out a file and has none',
      handingOut(undefined),
      [
        'warning file-none handout: “Handout {week}” is to hand out a file, and has none: give it one, or ask the instructor for theirs.',
      ],
    ],
    [
      'a form whose text cannot be read',
      handingOut({ key: 'form', left: 'theirs' }, { words: undefined }),
      [
        'warning file-none handout: Whether “Handout {week}” is filled in cannot be told: the text of its form “handout 0.docx” cannot be read.',
      ],
    ],
    [
      'a question that holds something that runs',
      asking('<p onclick="x()">Is it so?</p>'),
      [
        'error question-text quiz: The question “Is it so?” holds the attribute onclick, which is not let into a course. Take it out.',
      ],
    ],
    [
      'a question with an image that says nothing, and is none of the template’s',
      asking('<p>Is it so? <img src="asset:buoy.png"></p>'),
      [
        'error question-text quiz: An image in the question “Is it so?” has no alternative text. Say what it shows.',
        'error question-text quiz: The image buoy.png in the question “Is it so?” is not among those of this template.',
      ],
    ],
    [
      'a question that leads nowhere',
      asking('<p>Is it so, <a href="part:gone">as here</a>?</p>'),
      [
        'error question-text quiz: A link in the question “Is it so, as here?” leads to a part that is not in this template.',
      ],
    ],
    [
      'something that runs',
      (_, item) =>
        item('welcome').blocks.push(fixed('odd', '<p onclick="x()">Words</p><script>x()</script>')),
      [
        'error active-content welcome/odd: This block holds the attribute onclick, the element <script>, which is not let into a course. Take it out.',
      ],
    ],
    [
      'guidance that is not marked as such',
      (_, item) =>
        item('welcome').blocks.push(fixed('odd', '<p>Instructors should delete this line.</p>')),
      [
        'warning guidance-not-marked welcome/odd: “Instructors should delete this line.” reads like advice to the instructor, but stands where students read it. Make it a guidance note.',
      ],
    ],
    [
      'a fill-in whose prompt was never written',
      (_, item) =>
        item('welcome').blocks.push({
          kind: 'fill-in',
          key: 'new',
          strength: 'must',
          type: 'text',
          prompt: 'What should stand here?',
          scope: 'place',
          earlierPrompts: [],
        }),
      [
        'error fill-in-without-prompt welcome/new: The fill-in new still has the prompt it was made with, “What should stand here?”. Say what is wanted.',
      ],
    ],
    [
      'a spot in a sentence that says nothing, one that is none, and a card that asks nothing',
      (_, item) =>
        item('welcome').blocks.push(
          {
            kind: 'fixed-text',
            key: 'new',
            strength: 'must',
            html: '<p>See [[what belongs here]], or [[the desk.</p>',
          },
          {
            kind: 'contact-card',
            key: 'card',
            strength: 'must',
            label: 'Who teaches',
            left: { as: 'asked' },
          },
        ),
      [
        'error fill-in-without-prompt welcome/new: A spot in “See [[what belongs here]], or [[the desk.” still says “what belongs here”, as it was put in. Say what is wanted.',
        'error fill-in-without-prompt welcome/new: “See [[what belongs here]], or [[the desk.” has “[[” or “]]” without the other: no spot, and students read it.',
        'error fill-in-without-prompt welcome/card: The “Who teaches” is asked of the instructor, and nothing in it says what is wanted.',
      ],
    ],
    [
      'a link to what a condition takes away',
      (template, item) => {
        template.appliesTo.modalities = ['on-campus', 'online']
        item('quiz').when = { modalities: ['online'] }
        item('welcome').blocks.push(fixed('go', '<p>See <a href="part:quiz">the quiz</a>.</p>'))
      },
      [
        'error link-to-absent-part welcome/go: A link leads to “{code} · Quiz {number}: {topic}”, which is not there in courses that are on campus, 16 weeks.',
      ],
    ],
    [
      'a link to nothing',
      (_, item) =>
        item('welcome').blocks.push(fixed('go', '<p><a href="part:nobody">there</a></p>')),
      [
        'error link-to-absent-part welcome/go: A link leads to nobody, which is no part of this template.',
      ],
    ],
    [
      'a link from students to a staff page',
      (_, item) =>
        item('welcome').blocks.push(fixed('go', '<p><a href="part:staff-notes">there</a></p>')),
      [
        'warning link-to-absent-part welcome/go: A link leads to “Notes for the instructor”, which students cannot see.',
      ],
    ],
    [
      'a navigation entry that leads to what is not there, or not for students',
      (template, item) => {
        template.appliesTo.modalities = ['on-campus', 'online']
        item('quiz').when = { modalities: ['online'] }
        for (const to of ['nobody', 'quiz', 'staff-notes', 'welcome', 'home-page'])
          template.navigation.push({
            key: to,
            label: `To ${to}`,
            hidden: false,
            strength: 'should',
            to: `part:${to}`,
          })
      },
      [
        'error link-to-absent-part template/nobody: The navigation entry “To nobody” leads to a part that is no part of this template.',
        'error link-to-absent-part template/quiz: The navigation entry “To quiz” leads to “{code} · Quiz {number}: {topic}”, which is not there in courses that are on campus, 16 weeks.',
        'warning link-to-absent-part template/staff-notes: The navigation entry “To staff-notes” leads to “Notes for the instructor”, which students cannot see.',
      ],
    ],
    [
      'weights that do not come to 100',
      (template, item) => {
        template.grading.categories = [
          { key: 'a', name: 'Assignments', weight: 60, counts: true },
          { key: 'p', name: 'Practice', weight: 30, counts: false },
        ]
        item('assignment').settings.category = 'Assignments'
        item('quiz').settings.category = 'Practice'
      },
      ['error weights-total template: The weights come to 60, not 100.'],
    ],
    [
      'colours that cannot be read on one another',
      (template) => {
        template.houseStyle = {
          ...firstHouseStyle,
          colours: { ...firstHouseStyle.colours, main: '#8fb7c4' },
        }
      },
      [
        'error house-style-contrast template: The house style’s words on banners and table heads stand out by 2.1 to 1; 4.5 to 1 is needed. Take #444444 for words on them or #4b7d8e for banners, numbers and table heads.',
      ],
    ],
    [
      'work in a category that is not there',
      (template, item) => {
        template.grading.categories = [{ key: 'a', name: 'Assignments', weight: 100, counts: true }]
        item('assignment').settings.category = 'Assignment'
      },
      [
        'error category-unknown assignment: “{code} · Assignment {number}: {topic}” stands in the category “Assignment”, which the grade scheme does not have.',
        'warning category-unknown template/a: No work stands in the category “Assignments”, which carries 100 of 100.',
      ],
    ],
    [
      'an outcome that nothing assesses, and an objective that serves none',
      (template) => {
        template.outcomes = [{ key: 'fix', text: 'Fix a position' }]
        week(template).objectives = [{ key: 'bearing', text: 'Take a bearing', serves: [] }]
      },
      [
        'warning outcome-unassessed template/fix: No work assesses the course outcome “Fix a position”, directly or through an objective.',
        'warning outcome-unassessed week/bearing: The objective “Take a bearing” serves no course outcome.',
      ],
    ],
    [
      'formats that give one name twice',
      (_, item) => (item('checklist').name = 'Week {week} overview'),
      [
        'error names-told-apart checklist: “Week {week} overview” and “Week {week} overview” give the same name, “Week 1 overview”, in one module of courses that are on campus, 16 weeks.',
      ],
    ],
    [
      'a module that repeats without saying which it is',
      (template) => (week(template).name = 'Learning week'),
      [
        'error names-told-apart week: “Learning week” gives the name “Learning week” 16 times over in courses that are on campus, 16 weeks. Put the week, the unit or a number into it.',
      ],
    ],
    [
      'a format that cannot be read back',
      (_, item) => (item('staff-notes').name = '{topic}{title}'),
      ['warning names-told-apart staff-notes'],
    ],
    [
      'an image without alternative text',
      (_, item) => item('welcome').blocks.push(fixed('pic', '<p><img src="knot.png"></p>')),
      [
        'error alternative-text-missing welcome/pic: The image knot.png has no alternative text. Say what it shows, or mark it as decoration.',
      ],
    ],
    [
      'an image that is none of the template’s, told once, and one that is',
      (template, item) => {
        template.assets.push({
          key: 'knot',
          fileName: 'knot.svg',
          svg: '<svg viewBox="0 0 1 1"></svg>',
          alternativeText: 'A knot',
          licence: 'ours',
        })
        const images = ['knot', 'buoy', 'buoy'].map(
          (name) => `<img src="asset:${name}.svg" alt="">`,
        )
        images.push("<img alt='' src='asset:old quay.jpg'>")
        item('welcome').blocks.push(fixed('pic', `<p>${images.join('')}</p>`))
        template.houseTexts.push({
          key: 'ashore',
          title: 'Ashore',
          form: 'text',
          revisions: [
            {
              number: 1,
              inForceFrom: '2026-01-01',
              html: '<p><img src="asset:buoy.svg" alt=""></p>',
            },
            { number: 2, inForceFrom: '2026-02-01', html: `<p>${images[0]}</p>` },
          ],
        })
      },
      [
        'error image-none template: The house text “Ashore” shows the image knot.svg of a template. House texts bring no images along, so courses would show none: take it out.',
        'error image-none welcome/pic: The image buoy.svg is not among those of this template, so that courses would show none: put it in again, or take it out of the text.',
        'error image-none welcome/pic: The image old quay.jpg is not among those of this template, so that courses would show none: put it in again, or take it out of the text.',
      ],
    ],
    [
      'a must that instructors may remove',
      (_, item) => (item('welcome').may = { remove: true }),
      [
        'error contradictory-permission welcome: “Welcome to {code}” is a must, yet instructors may remove it.',
      ],
    ],
    [
      'a part that is in no course',
      (template, item) => {
        template.appliesTo.modalities = ['on-campus']
        item('quiz').when = { modalities: ['online'] }
      },
      [
        'error part-never-there quiz: “{code} · Quiz {number}: {topic}” is in no course this template applies to: its condition or repeat leaves none.',
      ],
    ],
    [
      'a part that shorter courses do not reach',
      (template, item) => {
        template.appliesTo.weeks = [16, 8]
        item('quiz').repeat = { per: 'week', from: 10, to: 12, every: 1, except: [] }
      },
      [
        'warning part-never-there quiz: “{code} · Quiz {number}: {topic}” is not in courses that are on campus, 8 weeks, as its repeat does not reach them.',
      ],
    ],
    [
      'an exception that never holds',
      (template) =>
        week(template).exceptions.push({
          key: 'far',
          anchor: { at: 'number', number: 40 },
          omit: false,
          name: 'Week {week}!',
          leaveOut: [],
          set: [],
          add: [],
        }),
      [
        'warning part-never-there week/far: The exception for number 40 of “Week {week} · {dates} · {topic}” holds in no course this template applies to.',
      ],
    ],
    [
      'nothing in a contact card and a title that do not say what they are, which everybody sees',
      (template) => {
        for (const block of template.home.blocks)
          if (block.kind === 'contact-card' || block.kind === 'title') delete block.element
      },
      [],
    ],
    [
      'a formula that nobody said how to read aloud',
      (_, item) =>
        item('welcome').blocks.push(
          fixed(
            'sum',
            '<p><math><mi>a</mi><mo>+</mo><mi>b</mi></math> <math alttext="a plus b"><mi>a</mi><mo>+</mo><mi>b</mi></math> <math><mi>a</mi></math></p>',
          ),
        ),
      [
        'warning alternative-text-missing welcome/sum: The formula a + b has no words to be read aloud. Say how it is said.',
      ],
    ],
    [
      'a home page that does not say who teaches',
      (template) =>
        template.home.blocks.splice(
          template.home.blocks.findIndex(({ kind }) => kind === 'contact-card'),
          1,
        ),
      [
        'warning home-page-incomplete home-page: The home page has no block for instructor contact.',
      ],
    ],
    [
      'a home page that does not say where to begin',
      (template) => template.home.blocks.splice(2, 1),
      ['warning home-page-incomplete home-page: The home page has no block for where to begin.'],
    ],
    [
      'a heading that skips a level',
      (_, item) => item('welcome').blocks.push(fixed('deep', '<h5>Small print</h5><p>x</p>')),
      [
        'error heading-skip welcome/deep: The heading “Small print” is of level 5 and follows one of level 2.',
      ],
    ],
    [
      'a rubric of other points than its work',
      (template, item) => {
        template.rubrics = [
          {
            key: 'log',
            title: 'Log book',
            criteria: [
              {
                text: 'Clear',
                levels: [
                  { text: 'yes', points: 30 },
                  { text: 'no', points: 0 },
                ],
              },
              { text: 'Complete', levels: [{ text: 'yes', points: 50 }] },
            ],
          },
        ]
        item('assignment').settings.rubric = 'log'
      },
      [
        'error rubric-points assignment: “{code} · Assignment {number}: {topic}” gives 100 points, its rubric “Log book” 80.',
      ],
    ],
    [
      'a page with nothing on it',
      (_, item) => (item('checklist').blocks = []),
      [
        'warning page-empty checklist: The page “Week {week} checklist” is empty: students of every course will open it and find nothing.',
      ],
    ],
    [
      'a field on a page whose name is misspelt, and no braces of sets or of code',
      (template, item) => {
        item('welcome').blocks.push(
          fixed(
            'near',
            '<p>In {Week} and {topci} we {begin} with {1, 2} and {x}, {reader, all}.</p>',
          ),
        )
        item('welcome').blocks.push({
          kind: 'fill-in',
          key: 'asks',
          strength: 'must',
          type: 'text',
          label: 'In {term}',
          prompt: 'Say what {code} is about',
          scope: 'place',
          earlierPrompts: [],
        })
        template.houseTexts.push({
          key: 'late',
          title: 'Late work',
          form: 'text',
          revisions: [
            { number: 1, inForceFrom: '2026-01-01', html: '<p>{code} is late, {set}.</p>' },
          ],
        })
      },
      [
        'warning field-in-text template: The house text “Late work” says {code}: house texts say the same in every course, so students would read it so.',
        'warning field-in-text welcome/near: “In {Week} and {topci} we {begin} with {1, 2} …” says {Week}, which is no field: students would read it so. Did you mean {week}?',
        'warning field-in-text welcome/near: “In {Week} and {topci} we {begin} with {1, 2} …” says {topci}, which is no field: students would read it so. Did you mean {topic}?',
        'warning field-in-text welcome/asks: The prompt “Say what {code} is about” says {code}: prompts say the same everywhere, so students would read it so.',
      ],
    ],
    [
      'a reader spoken to by name, with nothing to say where no name is shown',
      (template, item) => {
        item('welcome').blocks.push(fixed('hail', '<p>Welcome, {reader}!</p>'))
        asking('<p>{reader}, is this a question?</p>')(template, item)
      },
      [
        'warning reader-without-words welcome/hail: “Welcome, {reader}!” has nothing to say where a platform shows no first name. Write words for it, such as {reader, everybody}.',
        'warning reader-without-words quiz: The question “{reader}, is this a question?” speaks to its reader by name. Questions hold no names: write {reader, everybody}, or leave it out.',
      ],
    ],
    [
      'a date told by a week where there is none',
      (_, item) => (item('welcome').settings.due = { from: 'week-end', days: 0, time: '23:59' }),
      [
        'error offset-unresolved welcome: “Welcome to {code}” has a date told by its own week, but stands in no week of courses that are on campus, 16 weeks.',
      ],
    ],
  ]
  it.each(cases)('finds %s', (_, change, expected) => {
    const found = remarksOn(change)
    expect(
      found.map((remark, i) =>
        remark.slice(0, expected[i]?.endsWith('staff-notes') ? expected[i].length : undefined),
      ),
    ).toEqual(expected)
  })
  it('has a case here for every check', () => {
    const covered = new Set(
      cases.flatMap(([, , expected]) => expected.map((said) => said.split(' ')[1])),
    )
    expect(proofChecks.map((check) => check.id).filter((id) => !covered.has(id))).toEqual([])
  })
})
