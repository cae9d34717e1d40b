import { describe, expect, it } from 'vitest'
import { faultsOf } from '../template/index.ts'
import { readTypedQuestions } from './readTyped.ts'

const read = (text: string) => readTypedQuestions(text).questions.map(({ body }) => body)
const choicesIn = (text: string) =>
  read(text).map((body) =>
    'choices' in body
      ? [body.kind, ...body.choices.map(({ text, right }) => `${right ? '*' : ''}${text}`)]
      : [body.kind],
  )

describe('a list of questions as people paste it', () => {
  it('is read with letters and a star at the right answer', () => {
    expect(
      choicesIn('1. When is a neap tide?\na) at new moon\n*b) at the quarters\nc) never'),
    ).toEqual([['one-answer', 'at new moon', '*at the quarters', 'never']])
  })

  it.each([
    ['a star after the letter', '1) Which?\na. * red\nb. green'],
    ['a star at the end', '1) Which?\na. red *\nb. green'],
    ['(correct) at the end', '1. Which?\nA) red (correct)\nB) green'],
    ['a line that names it', '1. Which?\nA) red\nB) green\nAnswer: A'],
    ['a line that says it', '1. Which?\n- red\n- green\nCorrect answer: Red'],
    ['bullets and a star', 'Which?\n* red\n- green'],
    ['a tick', 'Which?\n✓ red\n- green'],
    ['answers with numbers of another form', '1. Which?\n1) red\n2) green\nAnswer: a'],
    ['letters in brackets', 'Question 1: Which?\n(a) red\n(b) green\nKey: a'],
    ['tabs and line ends of other systems', '1.\tWhich?\r\n\ta)\tred\r\n\tb)\tgreen\r\nAns: a'],
  ])('knows the right one by %s', (_, text) => {
    expect(choicesIn(text)).toEqual([['one-answer', '*red', 'green']])
  })

  it('keeps a space at which no line ends, and of several spaces one', () => {
    expect(choicesIn('1. How deep?\na)   5\u00a0m *\nb) 6    or 7\u00a0m')).toEqual([
      ['one-answer', '*5\u00a0m', '6 or 7\u00a0m'],
    ])
  })

  it('takes several right ones, and boxes, for several answers', () => {
    expect(choicesIn('1. Which?\n*a) red\n*b) green\nc) white')).toEqual([
      ['several-answers', '*red', '*green', 'white'],
    ])
    expect(choicesIn('1. Which?\n[x] red\n[ ] green')).toEqual([
      ['several-answers', '*red', 'green'],
    ])
    expect(choicesIn('1. Which?\na) red\nb) green\nc) white\nAnswers: a and c')).toEqual([
      ['several-answers', '*red', 'green', '*white'],
    ])
  })

  it('knows true and false, by its answers and by its answer', () => {
    expect(read('1. Red is port.\na) True *\nb) False')).toMatchObject([
      { kind: 'true-or-false', right: true },
    ])
    expect(read('1. True or false: red is starboard.\nAnswer: False')).toMatchObject([
      { kind: 'true-or-false', right: false },
    ])
  })

  it('knows short answers, patterns and essays by what stands below', () => {
    expect(
      read('1. What?\nAnswer: the tide / tide\n2. And?\nAnswer: *tide*\n3. Why?\nModel: It flows.'),
    ).toMatchObject([
      { kind: 'short-answer', answers: ['the tide', 'tide'] },
      { kind: 'pattern', answers: ['*tide*'] },
      { kind: 'essay', model: 'It flows.' },
    ])
  })

  it.each([
    ['(2 points)', 2],
    ['[1.5 pts]', 1.5],
    ['(3 Punkte)', 3],
    ['(2,5 poäng)', 2.5],
    ['(page 12)', 1],
  ])('reads what it is worth: %s', (worth, points) => {
    expect(read(`1. Why ${worth}?`)[0]?.points).toBe(points)
  })

  it('keeps paragraphs of a question, words that go on, and what is told afterwards', () => {
    expect(
      read(
        '1. Look at the chart.\nWhat is it?\na) a buoy\nwith a light\n~ No.\n*b) a mark\nFeedback: See week 2.',
      ),
    ).toEqual([
      {
        kind: 'one-answer',
        text: '<p>Look at the chart.</p><p>What is it?</p>',
        points: 1,
        feedback: 'See week 2.',
        choices: [
          { text: 'a buoy with a light', right: false, feedback: 'No.' },
          { text: 'a mark', right: true },
        ],
        shuffled: true,
      },
    ])
  })

  it('separates questions without numbers by empty lines', () => {
    expect(choicesIn('Which?\n*a) red\nb) green\n\nWhy?\n\nWhere?\nAnswer: here')).toEqual([
      ['one-answer', '*red', 'green'],
      ['essay'],
      ['short-answer'],
    ])
  })

  it('makes no answer of words that merely begin with a letter', () => {
    expect(read('1. A ship sails.\nE.g. a barque. b) is no answer.\nWhy?')).toMatchObject([
      {
        kind: 'essay',
        text: '<p>A ship sails.</p><p>E.g. a barque. b) is no answer.</p><p>Why?</p>',
      },
    ])
  })

  it('lets nothing through as HTML', () => {
    expect(read('1. <b onclick=x>Why</b> & how?')[0]?.text).toBe(
      '<p>&lt;b onclick=x&gt;Why&lt;/b&gt; &amp; how?</p>',
    )
  })

  it('tells what has no right answer, and what stands before the first question', () => {
    const typed = readTypedQuestions('Quiz for week 1\n1. Which?\na) red\nb) green')
    expect(typed.unread).toEqual([{ line: 1, text: 'Quiz for week 1' }])
    expect(typed.questions.map(({ line, body }) => [line, faultsOf(body)])).toEqual([
      [2, ['no-answer']],
    ])
  })

  it('is none where there is nothing', () => {
    expect(readTypedQuestions(' \n\n')).toEqual({ questions: [], unread: [] })
  })
})
