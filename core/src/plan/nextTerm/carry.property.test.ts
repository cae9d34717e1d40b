import * as fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { courseItem, courseModule } from '../../rules/example/courseParts.ts'
import {
  type CourseChild,
  everyCourseItem,
  type Facts,
  isCourseModule,
  isShown,
} from '../../course/index.ts'
import { exampleFacts, exampleTemplate } from '../../rules/example/exampleCourse.ts'
import type { Template } from '../../template/index.ts'
import { acts, edit, firstVersion, instructorEdits, wordsIn } from '../generated.testing.ts'
import { carryKinds, carryOver, topicsInOrder, type CarryKind } from '../index.ts'
import { platformNames, Standing, type PlatformName } from '../standing.testing.ts'
import { propertyRuns } from '../../testing/propertyRuns.testing.ts'

/** Eight weeks of another term, whose pause lies elsewhere or nowhere. */
const nextFacts = (breaks: Facts['term']['breaks'] = [], weeks = 8): Facts => {
  const facts = exampleFacts()
  return {
    ...facts,
    weeks,
    topics: {},
    term: {
      ...facts.term,
      code: 'spring-2027',
      title: 'Spring 2027',
      firstDay: '2027-01-11',
      lastDay: '2027-03-07',
      breaks,
      holidays: [],
    },
  }
}
const carried = (
  source: Standing,
  kinds: readonly CarryKind[] = carryKinds,
  facts: Facts = nextFacts(),
  template: Template = exampleTemplate(),
) => {
  const into = new Standing('keeps marks')
  const plan = carryOver(
    into.plan(template, facts),
    into.expand(template, facts),
    { course: source.course, base: source.base, bodies: source.bodies, facts: exampleFacts() },
    new Set(kinds),
  )
  if (plan.state !== 'ready') throw new Error(plan.state)
  into.bodies = { ...source.bodies, ...into.bodies }
  into.carry(plan)
  return {
    plan,
    into,
    listed: plan.consequences.flatMap((consequence) => consequence.all).join('\n'),
  }
}
const source = (platform: PlatformName = 'keeps marks', template?: Template): Standing => {
  const at = new Standing(platform)
  at.deploy(template)
  return at
}

describe('what never leaves its course', () => {
  it('a file in a visible module inside a hidden one', () => {
    const at = source()
    at.course = structuredClone(at.course)
    const file = everyCourseItem(at.course)[0]?.item
    const letter = courseItem('i-letter', 'letter.pdf', {
      ...file,
      id: 'i-letter',
      kind: 'file',
      name: 'letter.pdf',
    })
    const inner = courseModule('m-inner', 'Letters', [letter])
    at.course.modules.push(courseModule('m-outer', 'Private', [inner], { published: false }))
    const { into, plan } = carried(at)
    expect(JSON.stringify(into.course)).not.toContain('letter.pdf')
    expect(JSON.stringify(plan)).not.toContain('letter.pdf')
  })
  it('a file that is kept from students, nor a link to it', () => {
    const at = source()
    at.course = structuredClone(at.course)
    const url = '/c/files/extra-time'
    at.course.files = [{ id: 'f', name: 'extra time.pdf', url, restricted: true }]
    const week = at.course.modules[1]
    const like = everyCourseItem(at.course)[0]?.item
    if (!week || !like) throw new Error('the course is empty')
    week.children.push(
      { ...like, id: 'i-f', kind: 'file', name: 'extra time.pdf', url, html: null },
      { ...like, id: 'i-p', name: 'Mine', url: '/c/i-p', html: `<p><a href="${url}">See</a></p>` },
    )
    const { into } = carried(at)
    expect(JSON.stringify(into.course)).not.toContain('extra time')
    expect(into.item('Mine').html).toContain('<a href="#">See</a>')
  })
})

describe('a link of a page of their own to a file', () => {
  const url = '/c/files/tides'
  /** With a file, a page that leads to it, and an item that shows it where one is wanted. */
  const leading = (restricted: boolean, shown: { published: boolean } | null): Standing => {
    const at = source()
    at.course = structuredClone(at.course)
    const file = { name: 'own tides.pdf', content: 'd'.repeat(64) }
    at.course.files = [
      { id: 'f', url, restricted: false, ...file },
      { id: 'g', url: '/c/files/other', restricted, ...file },
    ]
    const like = everyCourseItem(at.course)[0]?.item
    if (!like) throw new Error('the course is empty')
    at.course.modules[1]?.children.push(
      { ...like, id: 'i-p', name: 'Mine', url: '/c/i-p', html: `<p><a href="${url}">See</a></p>` },
      ...(shown ? [{ ...like, ...shown, id: 'i-f', kind: 'file' as const, html: null, file }] : []),
    )
    return at
  }
  it('leads to the new course’s own copy of it', () => {
    expect(carried(leading(false, null)).into.item('Mine').html).toContain(
      `<a href="/c/files/${'d'.repeat(64)}/own%20tides.pdf">See</a>`,
    )
  })
  it.each<[string, boolean, { published: boolean } | null]>([
    ['is kept from students at another address', true, null],
    ['stands in a hidden place as well', false, { published: false }],
  ])('leads nowhere where what it holds %s, and that is told', (_, restricted, shown) => {
    const { into, listed } = carried(leading(restricted, shown))
    expect(into.item('Mine').html).toContain('<a href="#">See</a>')
    expect(JSON.stringify(into.course)).not.toContain('own%20tides')
    expect(listed).toContain('a link to a file')
  })
})

describe('what their people wrote', () => {
  it('beside a prompt comes along with it', () => {
    const at = source()
    const welcome = at.item('Welcome')
    at.write(
      welcome,
      (welcome.html ?? '').replace(
        'Tell students who you are.',
        'Tell students who you are. I am Pilar.',
      ),
    )
    expect(carried(at).into.item('Welcome').html).toContain('I am Pilar.')
  })
  it('between blocks comes along, in its place', () => {
    const at = source()
    const welcome = at.item('Welcome')
    at.write(welcome, (welcome.html ?? '').replace('</div>', '</div><p>Mind the step.</p>'))
    const html = carried(at).into.item('Welcome').html ?? ''
    expect(html).toMatch(/who you are\.<\/p>\s*<\/div>\s*<p>Mind the step\.<\/p>/)
  })
  it('side by side on a page without marks comes along in one piece, and that is told', () => {
    const at = source('strips marks')
    const home = everyCourseItem(at.course).find(({ item }) => item.id === at.course.homePage)?.item
    if (!home) throw new Error('no home page')
    at.write(home, '<p>Mondays at the boathouse.</p><p>Ring the bell.</p>')
    const { into, listed } = carried(at)
    const both = JSON.stringify(into.course) + listed
    expect(both).toContain('Mondays at the boathouse.')
    expect(both).toContain('Ring the bell.')
  })
  it('over fixed text stays behind, and is told by its words', () => {
    const at = source()
    const welcome = at.item('Welcome')
    at.write(welcome, (welcome.html ?? '').replace('by Friday', 'whenever the tide allows'))
    const { into, listed } = carried(at)
    expect(into.item('Welcome').html).toContain('by Friday')
    expect(listed).toContain('whenever the tide allows')
  })
  it('in weeks that the new term does not have is told', () => {
    const at = source()
    const last = at.item('Week 8 overview')
    at.write(last, (last.html ?? '').replace(/In two[^<]*/, 'We sail home.'))
    expect(carried(at, carryKinds, nextFacts([], 6)).listed).toContain('We sail home.')
  })
  it('stays theirs in the next update of the new course', () => {
    const at = source()
    const welcome = at.item('Welcome')
    at.write(welcome, (welcome.html ?? '').replace(/Tell[^<]*/, 'I am Pilar.'))
    const { into } = carried(at)
    const two = exampleTemplate()
    two.parts.forEach((part) => {
      if (part.kind !== 'module') return
      for (const item of part.items)
        if (item.kind !== 'module')
          for (const block of item.blocks) if (block.kind === 'fill-in') block.prompt = 'Anew.'
    })
    into.deploy(two, nextFacts())
    expect(into.item('Welcome').html).toContain('I am Pilar.')
  })
})

describe('a file of theirs', () => {
  const files = (change: (name: string) => string | null) => {
    const at = source('keeps marks', firstVersion(true))
    for (const { item } of everyCourseItem(at.course))
      if (item.kind === 'file') {
        const name = change(item.name)
        if (name !== null)
          at.edit([
            {
              change: 'set-item',
              id: item.id,
              fields: { file: { name, content: 'f'.repeat(64) } },
            },
          ])
      }
    return at
  }
  const there = (into: Standing): Record<string, string | undefined> =>
    Object.fromEntries(
      everyCourseItem(into.course).flatMap(({ item }) =>
        item.kind === 'file' ? [[item.name, item.file?.name]] : [],
      ),
    )
  it('comes along where it is proposed or asked for; a form begins blank in another term, and that is told', () => {
    const at = files(() => 'mine.pdf')
    const { into, listed } = carried(at, carryKinds, nextFacts(), firstVersion(true))
    expect(there(into)).toEqual({
      Timetable: 'handout 1.docx',
      'First slides of NAV 110': 'mine.pdf',
      'The form': 'handout 3.docx',
      'A picture of you': 'mine.pdf',
    })
    expect(listed).toContain('The form: the file “mine.pdf”')
    expect(listed).toContain('Timetable: the file “mine.pdf”')
    // And it is theirs from the start.
    expect(into.plan(firstVersion(true), nextFacts()).changes).toEqual([])
  })
  it('comes along with its form within the term', () => {
    const at = files(() => 'mine.pdf')
    const { into } = carried(at, carryKinds, exampleFacts(), firstVersion(true))
    expect(there(into)['The form']).toBe('mine.pdf')
  })
  it('that was not chosen is told by its name', () => {
    const at = files((name) => (name === 'A picture of you' ? 'me.jpg' : null))
    const { into, listed } = carried(at, ['topics'], nextFacts(), firstVersion(true))
    expect(there(into)['A picture of you']).toBeUndefined()
    expect(listed).toContain('A picture of you: the file “me.jpg”')
  })
  it('that is kept from students, or stands where nobody sees it, stays behind without its name', () => {
    const at = files((name) => (/picture|slides/.test(name) ? `secret of ${name}.pdf` : null))
    at.course = structuredClone(at.course)
    at.course.files = [{ id: 'f', name: 'x', url: '/f', restricted: true, content: 'f'.repeat(64) }]
    const { into, listed } = carried(at, carryKinds, nextFacts(), firstVersion(true))
    expect(JSON.stringify(into.course) + listed).not.toContain('secret')
    const hidden = files((name) => (name === 'A picture of you' ? 'secret.jpg' : null))
    const picture = hidden.item('A picture')
    hidden.edit([{ change: 'set-item', id: picture.id, fields: { published: false } }])
    const without = carried(hidden, carryKinds, nextFacts(), firstVersion(true))
    expect(JSON.stringify(without.into.course) + without.listed).not.toContain('secret')
  })
  it('of an item of their own comes along with it; one that cannot be seen is told', () => {
    const at = source()
    at.course = structuredClone(at.course)
    const like = everyCourseItem(at.course)[0]?.item
    if (!like) throw new Error('the course is empty')
    const own = { ...like, kind: 'file' as const, html: null }
    at.course.modules[1]?.children.push(
      {
        ...own,
        id: 'i-a',
        name: 'Chart',
        url: '/c/i-a',
        file: { name: 'chart.pdf', content: 'a'.repeat(64) },
      },
      { ...own, id: 'i-b', name: 'Untold', url: '/c/i-b' },
    )
    const { into, listed } = carried(at)
    expect(into.item('Chart').file?.name).toBe('chart.pdf')
    expect(listed).toContain('the file “Untold”, which cannot be seen')
    expect(everyCourseItem(into.course).some(({ item }) => item.name === 'Untold')).toBe(false)
  })
})

describe('topics go by the order of the weeks of class', () => {
  const weeks = (breaks: Facts['term']['breaks']) => ({ ...nextFacts(breaks), breakWeeks: true })
  const early = [{ name: 'Pause', first: '2027-01-25', last: '2027-01-29' }]
  const late = [{ name: 'Pause', first: '2027-02-22', last: '2027-02-26' }]
  const topics = { 1: 'one', 2: 'two', 4: 'three', 5: 'four', 6: 'five', 7: 'six', 8: 'seven' }
  it('across a pause that lies elsewhere', () => {
    const counted = (breaks: Facts['term']['breaks']) => {
      const facts = weeks(breaks)
      return { ...facts, term: { ...facts.term, breakWeeksCount: true } }
    }
    expect(topicsInOrder(topics, counted(early), counted(late))).toEqual({
      topics: { 1: 'one', 2: 'two', 3: 'three', 4: 'four', 5: 'five', 6: 'six', 8: 'seven' },
      left: [],
    })
  })
  it('and what finds no week is told', () => {
    const short = { ...nextFacts([], 5) }
    const { topics: placed, left } = topicsInOrder({ 1: 'one', 8: 'eight' }, nextFacts(), short)
    expect(placed).toEqual({ 1: 'one' })
    expect(left).toEqual([{ week: 8, topic: 'eight' }])
  })
})

describe('every word of theirs', () => {
  const cases = fc.record({
    edits: acts(instructorEdits, 6),
    platform: fc.constantFrom(...platformNames),
    kinds: fc.subarray([...carryKinds]),
    weeks: fc.constantFrom(8, 6, 5),
    leaves: fc.boolean(),
  })
  /** Without what is hidden or for staff: of that not even the name is told elsewhere. */
  const shownOf = (children: readonly CourseChild[]): CourseChild[] =>
    children.flatMap((child): CourseChild[] =>
      !isShown(child)
        ? []
        : isCourseModule(child)
          ? [{ ...child, children: shownOf(child.children) }]
          : [child],
    )
  it('stands in the new course or is listed, whatever they did and whatever was chosen', () => {
    fc.assert(
      fc.property(cases, ({ edits, platform, kinds, weeks, leaves }) => {
        const at = source(platform, firstVersion(leaves))
        edit(at, edits, 'early')
        const { into, listed } = carried(at, kinds, nextFacts([], weeks), firstVersion(leaves))
        // Items of their own that were not chosen are told by their names, with all that is in them.
        const recorded = new Set(at.base.parts.map((entry) => entry.platformId))
        const told = everyCourseItem(at.course)
          .filter(({ item }) => !recorded.has(item.id) && listed.includes(item.name))
          .map(({ item }) => JSON.stringify(item))
          .join('\n')
        const stands = JSON.stringify(into.course) + listed + told
        const shown = JSON.stringify([
          at.course.name,
          shownOf(at.course.modules),
          shownOf(at.course.stray),
        ])
        expect(wordsIn(shown, 'early').filter((word) => !stands.includes(word))).toEqual([])
      }),
      propertyRuns(),
    )
  })
})
