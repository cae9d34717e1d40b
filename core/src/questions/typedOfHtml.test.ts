import { describe, expect, it } from 'vitest'
import { readTypedQuestions } from './readTyped.ts'
import { typedOfHtml } from './typedOfHtml.ts'

const nested = `<ol><li>Which light is red?<ol type="a"><li>Port</li><li><b>Starboard</b></li></ol></li>
<li><p>What is datum?</p></li></ol>`

describe('questions copied as HTML', () => {
  it('have the numbers and letters that their list shows, and a star at the bold answer', () => {
    expect(typedOfHtml(nested)).toBe(
      '1. Which light is red?\na) Port\n*b) Starboard\n2. What is datum?',
    )
  })
  it('are read as questions then', () => {
    const { questions } = readTypedQuestions(typedOfHtml(nested) ?? '')
    expect(questions.map(({ body }) => body.kind)).toEqual(['one-answer', 'essay'])
  })
  it('in which all answers are bold have no right one by that', () => {
    expect(
      typedOfHtml('<ol><li>Which?<ul><li><b>one</b></li><li><b>two</b></li></ul></li></ol>'),
    ).toBe('1. Which?\na) one\nb) two')
  })
  it('go on counting where an answer key stands between two lists', () => {
    expect(typedOfHtml('<ol><li>One?</li></ol><p>Answer: a</p><ol><li>Two?</li></ol>')).toBe(
      '1. One?\nAnswer: a\n2. Two?',
    )
  })
  it.each(['', '<p>1. Which?</p><p>a) one</p>', '<b>x</b>'])(
    'are left to their plain text where there is no list: %s',
    (html) => expect(typedOfHtml(html)).toBeNull(),
  )
  it('bring nothing along that runs', () => {
    expect(
      typedOfHtml(
        '<ol><li onclick="x()">Why<script>x()</script>?<img src=x onerror=x()></li></ol>',
      ),
    ).toBe('1. Why?')
  })
})
