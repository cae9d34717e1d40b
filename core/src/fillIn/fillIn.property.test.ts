import * as fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { checkCourse } from '../check/index.ts'
import { everyCourseItem, type Course, type Facts } from '../course/index.ts'
import { expandCourse } from '../expand/index.ts'
import { keptPage } from '../page/keptPage.testing.ts'
import { deployInto } from '../plan/index.ts'
import { firstVersion } from '../plan/generated.testing.ts'
import { platformNames, platforms, type PlatformName } from '../plan/standing.testing.ts'
import { emptyCourse, exampleFacts } from '../rules/example/exampleCourse.ts'
import type { AnswerType } from '../template/index.ts'
import { propertyRuns } from '../testing/propertyRuns.testing.ts'
import { readerNames } from '../testing/leftBlocks.testing.ts'
import { askedInCourse, fillIn, linesAsHtml, type Answer, type AskingPage } from './index.ts'

const template = firstVersion(true)
const lastDay = exampleFacts().term.lastDay

/** A course as it is deployed on a platform, nothing filled in, with words of somebody's own at some places. */
const deployed = (platform: PlatformName, facts: Facts, own: readonly number[]): Course => {
  const expected = expandCourse({ template, facts, mintFrom: 'fill' })
  if (!expected.ok) throw new Error(JSON.stringify(expected.problems))
  let next = 0
  const { course } = deployInto(
    expected.value,
    { ...emptyCourse('f', 'New course'), timeZone: facts.term.timeZone },
    {
      newId: (kind) => `${kind}-${++next}`,
      urlOf: (id) => `/courses/f/${id}`,
      urlOfFile: ({ name }) => `/courses/f/files/${encodeURIComponent(name)}`,
      rewriteHtml: platforms[platform],
    },
    lastDay,
  )
  const pages = everyCourseItem(course).filter(({ item }) => item.html !== null)
  own.forEach((n, i) => {
    const page = pages[n % pages.length]?.item
    if (page)
      page.html = `${page.html ?? ''}\n<p>My own words ${i}: “tides”, <em>é</em> &amp; so on.</p>`
  })
  return course
}

/** Something that answers what is asked, as somebody would write it. */
const answerOf = (type: AnswerType, n: number): string => {
  switch (type) {
    case 'list':
      return linesAsHtml([`The ${n}. thing we do`, 'And <another> & more'], 'list')
    case 'link':
    case 'video':
    case 'file':
      return `<p><a href="https://kestrelsound.example/${n}.pdf">The ${n}. of them</a></p>`
    case 'e-mail':
      return `<p><a href="mailto:a${n}@kestrelsound.example">a${n}@kestrelsound.example</a></p>`
    case 'table':
      return `<table><tbody><tr><th scope="col">What ${n}</th></tr><tr><td>So</td></tr></tbody></table>`
    case 'date':
      return `<p>14 September 2026, the ${n}. time</p>`
    default:
      return `<p>We meet at the east slip for the ${n}. time, ${'rain or shine '.repeat(6)}.</p>`
  }
}
const answersTo = (pages: readonly AskingPage[]): Answer[] =>
  pages.flatMap(({ item, things }) =>
    things.flatMap(({ block, type, pieces }) =>
      pieces.map(({ says, nth, mayGo }, i) => ({
        item,
        block,
        says,
        nth,
        html: mayGo ? '' : answerOf(type, i + nth + says.length),
        ...(type === 'file' && !mayGo && says.length % 2 === 0
          ? { file: { name: `Plan “${i}” (at sea).ods`, content: 'ab'.repeat(32) } }
          : {}),
      })),
    ),
  )
const askedIn = (check: Parameters<typeof askedInCourse>[0]): AskingPage[] => {
  const asked = askedInCourse(check)
  if (!asked.ok) throw new Error(JSON.stringify(asked.problems))
  return asked.value.pages
}
const placesOf = (pages: readonly AskingPage[]): string[] =>
  pages.flatMap(({ item, things }) =>
    things.flatMap(({ block, pieces }) => pieces.map(({ says }) => `${item} ${block} ${says}`)),
  )
const filled = (check: Parameters<typeof askedInCourse>[0], answers: readonly Answer[]) => {
  const result = fillIn(check, answers)
  if (!result.ok) throw new Error(JSON.stringify(result.problems))
  const course = structuredClone(check.course)
  for (const change of result.value.changes)
    if (change.change === 'set-item')
      for (const { item } of everyCourseItem(course))
        if (item.id === change.id && change.fields.html !== undefined)
          item.html = change.fields.html
  return { ...result.value, course }
}

const cases = fc.record({
  platform: fc.constantFrom(...platformNames),
  reader: fc.constantFrom(undefined, ...readerNames),
  own: fc.array(fc.nat(), { maxLength: 6 }),
  /** Which prompts somebody took out, and left their place empty. */
  emptied: fc.array(fc.nat(), { maxLength: 4 }),
  chosen: fc.array(fc.boolean(), { minLength: 1, maxLength: 20 }),
})

describe('what a course asks, answered', () => {
  it('is asked no more, on any platform, and every other word of a page stands as it stood', () => {
    fc.assert(
      fc.property(cases, ({ platform, reader, own, emptied, chosen }) => {
        const facts = { ...exampleFacts(), ...(reader === undefined ? {} : { readerName: reader }) }
        const course = deployed(platform, facts, own)
        const worked = new Map()
        const check = { template, facts, course, asOf: lastDay, worked, pageOf: keptPage }
        if (platform === 'keeps marks')
          for (const n of emptied) {
            const [asking] = askedIn(check).slice(n % 5)
            const said = asking?.things.find(({ within }) => within === null)?.pieces[0]?.says
            for (const { item } of everyCourseItem(course))
              if (item.id === asking?.item && said)
                item.html = item.html?.replace(`>${said}<`, '><') ?? null
          }
        const pages = askedIn(check)
        const answers = answersTo(pages)
        const some = answers.filter((_, i) => chosen[i % chosen.length])
        const first = filled(check, some)
        expect(first.left).toEqual([])
        expect(first.written).toHaveLength(some.length)
        const places = placesOf(pages)
        const answered = some.map(({ item, block, says }) => `${item} ${block} ${says}`)
        for (const place of answered) places.splice(places.indexOf(place), 1)
        expect(placesOf(askedIn({ ...check, course: first.course })).sort()).toEqual(places.sort())
        // Words that are neither what asked nor what was answered stand as they stood, in their order.
        const texts = (html: string | null) =>
          keptPage(html ?? '').paragraphs.map(({ text }) => text)
        const after = new Map(everyCourseItem(first.course).map(({ item }) => [item.id, item.html]))
        for (const { item } of everyCourseItem(course)) {
          const said = texts(after.get(item.id) ?? null)
          const asks = answers.filter((answer) => answer.item === item.id).map(({ says }) => says)
          for (const text of texts(item.html))
            if (!asks.some((prompt) => prompt !== '' && text.includes(prompt)))
              expect(said).toContain(text)
          for (const [mine] of (item.html ?? '').matchAll(/<p>My own words .*?<\/p>/g))
            expect(after.get(item.id)).toContain(mine)
        }
        // And all of it: the check asks for nothing more.
        const rest = filled(
          { ...check, course: first.course },
          answersTo(askedIn({ ...check, course: first.course })),
        )
        expect(rest.left).toEqual([])
        const checked = checkCourse({ ...check, course: rest.course })
        if (!checked.ok) throw new Error(JSON.stringify(checked.problems))
        expect(
          checked.value.findings.flatMap(({ rule, message }) =>
            rule === 'fill-in-unfilled' || rule === 'prompt-beside-answer' ? [message] : [],
          ),
        ).toEqual([])
      }),
      propertyRuns(),
    )
  })
})
