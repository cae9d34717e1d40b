import { describe, expect, it } from 'vitest'
import { exampleTemplate } from '../rules/example/exampleCourse.ts'
import { everyItem } from '../template/index.ts'
import { refusedIn } from './refusedIn.ts'

const hostile = '<p onclick="x()">Why?</p>'
const withQuiz = (change: (quiz: ReturnType<typeof everyItem>[number]) => void) => {
  const template = exampleTemplate()
  for (const item of everyItem(template)) if (item.key === 'quiz') change(item)
  return refusedIn(template).map(({ path, found }) => [path, found])
}

describe('what of a document is not let into a course', () => {
  it('is told in a text and in what a question asks, with its place', () => {
    expect(
      withQuiz((quiz) => {
        quiz.blocks.push({ kind: 'fixed-text', key: 'odd', strength: 'must', html: hostile })
        quiz.questions = { list: [{ key: 'q', body: { kind: 'essay', text: hostile, points: 1 } }] }
      }),
    ).toEqual([
      [expect.stringMatching(/blocks\/0\/html$/), 'the attribute onclick in “odd”'],
      [expect.stringMatching(/questions\/list\/0\/body\/text$/), 'the attribute onclick in “q”'],
    ])
  })
  it('is not looked for in plain lines: what looks like a tag there is written as text', () => {
    expect(
      withQuiz((quiz) => {
        quiz.name = 'Is <b onclick=x> a tag?'
        quiz.questions = {
          list: [
            {
              key: 'q',
              body: {
                kind: 'short-answer',
                text: '<p>Which tag?</p>',
                points: 1,
                answers: ['<script>'],
              },
            },
          ],
        }
      }),
    ).toEqual([])
  })
})
