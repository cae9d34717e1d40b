import { describe, expect, it } from 'vitest'
import { everyCourseItem, filesOfChange } from '../course/index.ts'
import { exampleCourse, exampleFacts, exampleTemplate } from '../rules/example/exampleCourse.ts'
import { askAgain, weekPrompt } from '../testing/askingExample.testing.ts'
import { askedInCourse, fillIn, ownWords, type Answer } from './index.ts'

/** The example before its weeks were filled in. */
const begun = () => {
  const { course } = exampleCourse()
  askAgain(course)
  return { template: exampleTemplate(), facts: exampleFacts(), course, asOf: '2026-09-16' }
}
const placesOf = (check: ReturnType<typeof begun>) => {
  const asked = askedInCourse(check)
  if (!asked.ok) throw new Error(JSON.stringify(asked.problems))
  return asked.value.pages
}
const answered = (change: (answer: Answer) => Answer, check = begun()) => {
  const [page] = placesOf(check)
  const answer: Answer = {
    item: page?.item ?? '',
    block: page?.things[0]?.block ?? '',
    says: weekPrompt,
    nth: 0,
    html: '<p>The tide.</p>',
  }
  const filled = fillIn(check, [change(answer)])
  if (!filled.ok) throw new Error(JSON.stringify(filled.problems))
  return filled.value
}

describe('answers to what the pages of a course ask', () => {
  it('tell of each page by when students need it, breaks apart', () => {
    const pages = placesOf(begun())
    expect(pages.length).toBeGreaterThan(5)
    expect(pages.map(({ neededBy }) => neededBy)).toEqual(
      pages.map(({ neededBy }) => neededBy).sort(),
    )
    expect(pages[0]?.things[0]).toMatchObject({ block: 'about', forCourse: false })
  })
  it.each<[string, string | null]>([
    ['is not told', null],
    ['is too long to be read', `<p>${'x'.repeat(2_000_001)}</p>`],
  ])(
    'are not taken for given where a page %s: it is named, unless it never asked anything',
    (_, html) => {
      const check = begun()
      const spoilt = everyCourseItem(check.course).filter(({ item }) =>
        /^Week 3 overview|checklist/.test(item.name),
      )
      expect(spoilt.length).toBeGreaterThan(2)
      for (const { item } of spoilt) item.html = html
      const asked = askedInCourse(check)
      if (!asked.ok) throw new Error(JSON.stringify(asked.problems))
      expect(asked.value.unread).toEqual(['Week 3 overview'])
      expect(asked.value.pages).toEqual(
        placesOf(begun()).filter(({ name }) => name !== 'Week 3 overview'),
      )
    },
  )
  it('are written where they are asked', () => {
    const { changes, written, left } = answered((answer) => answer)
    expect([changes.length, written.length, left.length]).toEqual([1, 1, 0])
    expect(JSON.stringify(changes)).toContain('The tide.')
  })
  it.each<[string, Partial<Answer>]>([
    ['of a page that is not there', { item: 'no-such' }],
    ['of a block that asks nothing', { block: 'advice' }],
    ['of a block that is not there', { block: 'no-such' }],
    ['to words that nobody asks', { says: 'We learn what' }],
    ['to the rest of a sentence', { says: 'say what this week is about.' }],
    ['to nothing but spaces, however many', { says: ' '.repeat(5000) }],
    ['to another that says the same', { nth: 1 }],
  ])('are left %s', (_, change) => {
    const { changes, left } = answered((answer) => ({ ...answer, ...change }))
    expect([changes, left.length]).toEqual([[], 1])
  })
  it('are written though others of the same block are asked no more', () => {
    const check = begun()
    const [page] = placesOf(check)
    const one = { item: page?.item ?? '', block: 'about', says: weekPrompt, nth: 0, html: 'a' }
    const gone = { ...one, says: 'What was asked before' }
    const filled = fillIn(check, [gone, one])
    if (!filled.ok) throw new Error(JSON.stringify(filled.problems))
    expect([filled.value.written, filled.value.left]).toEqual([[one], [gone]])
  })
  it('may be a picture, which the platform has to have before', () => {
    const picture = {
      key: 'own',
      fileName: 'me.svg',
      svg: '<svg viewBox="0 0 1 1"></svg>',
      alternativeText: 'Me & the wheel',
      licence: 'mine',
    }
    const { changes, pictures } = answered((answer) => ({ ...answer, html: '', picture }))
    expect(pictures).toEqual([picture])
    expect(JSON.stringify(changes)).toMatch(/asset:me-[0-9a-f]+\.svg.{3}alt=.{2}Me &amp; the wheel/)
  })
  it('may be a file, which a link leads to by its name', () => {
    const file = { name: 'Plan & tides (1).pdf', content: 'ab'.repeat(32) }
    const { changes } = answered((answer) => ({ ...answer, html: '', file }))
    expect(changes.flatMap(filesOfChange)).toEqual([file])
    expect(JSON.stringify(changes)).toContain('>Plan &amp; tides (1).pdf</a>')
  })
  it('bring nothing along that would be taken for the template’s, and nothing that runs', () => {
    const { changes } = answered((answer) => ({
      ...answer,
      html: '<p data-wicker-block="advice" onclick="a()">The <a href="ref:welcome">tide</a>.</p><script>1</script>',
    }))
    const text = JSON.stringify(changes)
    expect(text).toContain('<a>tide</a>')
    expect(text).not.toMatch(/onclick|script|ref:welcome/)
    expect(text.match(/data-wicker-block=.{2}advice/g) ?? []).toHaveLength(
      JSON.stringify(begun().course.modules).includes('advice') ? 1 : 0,
    )
    expect(ownWords('<img src="asset:quay.svg" alt="">').refused).toEqual([
      'the address “asset:quay.svg”',
    ])
  })
})
