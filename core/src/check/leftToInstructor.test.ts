import { describe, expect, it } from 'vitest'
import { everyCourseItem } from '../course/index.ts'
import { exampleCourse, exampleTemplate } from '../rules/example/exampleCourse.ts'
import { everyItem, type Block } from '../template/index.ts'
import { leftBlocks } from '../testing/leftBlocks.testing.ts'
import { checkCourse, pageDifference } from './index.ts'

const onWelcome = (key: string, change: (block: Block) => void = () => undefined) => {
  const template = exampleTemplate()
  const page = everyItem(template).find((item) => item.key === 'welcome')
  const block = structuredClone(leftBlocks.find((other) => other.key === key))
  if (!page || !block) throw new Error(`no ${key}`)
  change(block)
  page.blocks.push(block)
  const example = exampleCourse(template)
  const item = everyCourseItem(example.course).find(
    ({ item }) => item.recordedAs?.part === 'welcome',
  )?.item
  if (!item?.html) throw new Error('no page')
  const told = (write: (html: string) => string = (html) => html) => {
    item.html = write(item.html ?? '')
    const result = checkCourse({ ...example, asOf: '2026-09-16' })
    if (!result.ok) throw new Error(JSON.stringify(result.problems))
    return result.value.findings
      .filter(({ places }) => places.some(({ place }) => place.part === 'welcome'))
      .map(({ rule, message, places }) => ({ rule, message, expected: places[0]?.expected }))
  }
  return { told, example, item }
}
const why = 'Tell students why they do this.'
const what = 'Tell students what they do, step by step.'
const handIn = 'Tell students what you want to see.'

describe('an assignment brief that is asked for', () => {
  it('says which of its pieces still ask, and helps with the hint and the example', () => {
    const { told } = onWelcome('left-brief', (block) =>
      Object.assign(block, {
        left: { as: 'asked', hint: 'Name the hours.', example: '<p>A log of two pages.</p>' },
      }),
    )
    expect(told((html) => html.replace(why, 'So that nobody runs aground.'))).toEqual([
      {
        rule: 'fill-in-unfilled',
        message: `“Welcome to NAV 110” still asks for the assignment brief: “${what}”, “${handIn}”.`,
        expected: 'assignment brief. Name the hours. For example: A log of two pages.',
      },
    ])
  })
  it('with nothing in it has nothing where it asks', () => {
    const { told } = onWelcome('left-brief')
    expect(
      told((html) => html.replace(why, '').replace(what, '').replace(handIn, '')),
    ).toMatchObject([
      {
        rule: 'fill-in-unfilled',
        message: '“Welcome to NAV 110” has nothing where it asks for the assignment brief.',
      },
    ])
  })
})

describe('a film that is asked for', () => {
  const prompt = 'Tell students which film to watch first'
  it('is one: words alone are told', () => {
    const { told } = onWelcome('left-video')
    expect(told((html) => html.replace(prompt, 'There is none this year'))).toMatchObject([
      { rule: 'fill-in-constraint', expected: 'a film' },
    ])
  })
  it('with its prompt left above it is told as that', () => {
    const { told } = onWelcome('left-video')
    const film = '<a href="https://films.example/1">Tides (4 minutes, captions)</a>'
    expect(told((html) => html.replace(prompt, `${prompt}</p><p>${film}`))).toMatchObject([
      { rule: 'prompt-beside-answer' },
    ])
  })
})

describe('what is proposed', () => {
  it('may stand, be worded otherwise, and is missed only when it is gone', () => {
    const { told, example, item } = onWelcome('left-proposal')
    expect(told()).toEqual([])
    expect(told((html) => html.replace('A logbook by Friday', 'A pencil, and a friend'))).toEqual(
      [],
    )
    const shown = pageDifference({ ...example, asOf: '2026-09-16' }, item.id)
    const states = shown.ok ? shown.value?.stretches.flatMap(({ block }) => block ?? []) : []
    expect(states?.find(({ key }) => key === 'left-proposal')).toMatchObject({
      state: 'filled',
      difference: [],
    })
    expect(
      told((html) => html.replace(/<div data-wicker-block="left-proposal".*?<\/div>/s, '')),
    ).toMatchObject([{ rule: 'block-missing' }])
  })
})
