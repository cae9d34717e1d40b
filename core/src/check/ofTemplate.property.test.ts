import * as fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { everyCourseItem } from '../course/index.ts'
import { ruleById } from '../rules/index.ts'
import { everyItem, type Block, type Item, type Template } from '../template/index.ts'
import { propertyRuns } from '../testing/propertyRuns.testing.ts'
import { faultless, faultlessCases } from './faultless.testing.ts'
import { checkCourse } from './index.ts'

/** What a designer got wrong on a page. */
const wrongTexts = {
  'sample text': '<p>Lorem ipsum dolor sit amet, consectetur adipiscing elit.</p>',
  'an image without a description': '<p><img src="/files/chart-of-the-bay.png"></p>',
  'an image described by its file': '<p><img src="/files/a.png" alt="IMG_0042.png"></p>',
  'a link that says nothing': '<p><a href="https://tides.example/a">click here</a></p>',
  'a bare address': '<p><a href="https://tides.example/b">https://tides.example/b</a></p>',
  'a table without headers':
    '<table><tr><td>Hour</td><td>Who</td></tr><tr><td>1</td><td>Mate</td></tr><tr><td>2</td><td>Cook</td></tr></table>',
  'an address that leads nowhere to write to': '<p>Write to harbour@kestrelsound.example.</p>',
  'a link into another course': '<p><a href="/courses/77/pages/3">the old map</a></p>',
  'a date of another year': '<p>Handed in by 14 March 2019 at noon.</p>',
  'a level skipped': '<h2>Harbour</h2><h5>Far down</h5><p>The quay.</p>',
  'a list that is none': '<p>- one rope<br>- two ropes<br>- three ropes</p>',
} as const
const wrongWork = {
  'a due date after its week': (item: Item) => {
    item.settings.due = { from: 'week-end', days: 9, time: '23:59' }
  },
  'no due date': (item: Item) => {
    delete item.settings.due
  },
  'no way to hand it in': (item: Item) => {
    delete item.settings.handIn
  },
} as const

type Wrong = { text: keyof typeof wrongTexts; page: number } | { work: keyof typeof wrongWork }
const wrongs: fc.Arbitrary<Wrong> = fc.oneof(
  fc.record({
    text: fc.constantFrom(...(Object.keys(wrongTexts) as (keyof typeof wrongTexts)[])),
    page: fc.nat(),
  }),
  fc.record({ work: fc.constantFrom(...(Object.keys(wrongWork) as (keyof typeof wrongWork)[])) }),
)

/** A third of the cases, as up to three courses are checked in each. */
const { numRuns, seed } = propertyRuns()
const runs = { numRuns: Math.ceil(numRuns / 3), seed }

const makeWrong = (template: Template, wrong: Wrong): void => {
  const items = everyItem(template)
  if ('work' in wrong) {
    for (const item of items)
      if (item.kind === 'assignment' || item.kind === 'assessment') wrongWork[wrong.work](item)
    return
  }
  const pages = [template.home, ...items.filter(({ kind }) => kind === 'page')]
  const block: Block = {
    kind: 'fixed-text',
    key: `wrong-${wrong.text.replace(/\W/g, '-')}`,
    strength: 'must',
    html: wrongTexts[wrong.text],
  }
  const { blocks } = pages[wrong.page % pages.length] ?? template.home
  if (!blocks.some(({ key }) => key === block.key)) blocks.push(block)
}

/** Who borrows an answer from the words beside it would say what is wrong there in words of their own. */
const cases = faultlessCases.map((given) => ({
  ...given,
  answers: given.answers === 'borrowed' ? ('long' as const) : given.answers,
}))

const told = (about: Parameters<typeof checkCourse>[0]) => {
  const result = checkCourse(about)
  if (!result.ok) throw new Error(JSON.stringify(result.problems))
  return result.value.findings.filter(
    ({ rule, strength }) => strength !== 'may' && !ruleById(rule)?.onlyInCourse,
  )
}

describe('whatever a designer got wrong', () => {
  it('is the designer’s in every course that was just deployed and filled in, and nothing is the instructor’s', () => {
    let found = 0
    fc.assert(
      fc.property(cases, fc.array(wrongs, { minLength: 1, maxLength: 3 }), (given, all) => {
        const findings = told(
          faultless(given, (template) => {
            for (const wrong of all) makeWrong(template, wrong)
          }),
        )
        found += findings.length
        expect(
          findings
            .filter(({ mender, owner }) => mender === 'instructor' || owner !== null)
            .map(({ rule, message }) => `${rule}: ${message}`),
        ).toEqual([])
      }),
      runs,
    )
    expect(found).toBeGreaterThan(0)
  })

  it('takes nothing from the instructor that the instructor got wrong', () => {
    const others = wrongs.filter((wrong) => !('text' in wrong && wrong.text === 'sample text'))
    fc.assert(
      fc.property(cases, fc.array(others, { maxLength: 2 }), fc.nat(), (given, all, at) => {
        const about = faultless(given, (template) => {
          for (const wrong of all) makeWrong(template, wrong)
        })
        const pages = everyCourseItem(about.course).filter(
          ({ item }) => item.html !== null && !item.staffOnly,
        )
        const page = pages[at % pages.length]?.item
        if (!page) return
        page.html += '<p>Lorem ipsum, dolor and more.</p>'
        const theirs = told({ ...about, asOf: about.facts.term.lastDay }).filter(
          ({ mender }) => mender === 'instructor',
        )
        expect(theirs.map(({ rule, places }) => [rule, places[0]?.place.foundId])).toEqual([
          ['filler-text', page.id],
        ])
      }),
      runs,
    )
  })
})
