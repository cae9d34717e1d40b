import { withoutEnd } from '../document/index.ts'
import { escapeHtml, type Choice, type QuestionBody } from '../template/index.ts'
import { kindOfLine, type QuestionLine } from './questionLine.ts'

/** A question read from a typed or pasted list, and the line on which it begins, from 1. */
export interface TypedQuestion {
  line: number
  body: QuestionBody
}

export interface TypedQuestions {
  questions: TypedQuestion[]
  /** Lines before the first question that are none of it, from 1. */
  unread: { line: number; text: string }[]
}

interface Draft {
  line: number
  text: string[]
  points: number
  choices: (Choice & { letter: string | null; isBox: boolean })[]
  /** What is said to be right, as it was written. */
  answers: string[]
  isPattern: boolean
  model: string | undefined
  feedback: string | undefined
}

const folded = (text: string): string => text.trim().toLowerCase()
const truth: ReadonlyMap<string, boolean> = new Map([
  ['true', true],
  ['t', true],
  ['false', false],
  ['f', false],
])

/** `a, c` and `A and C` as letters; null where it is something else. */
const lettersIn = (answer: string): string[] | null => {
  const parts = folded(answer)
    .split(/\s*(?:,|;|&|\+|\/|\band\b)\s*|\s+/)
    .map((part) => withoutEnd(part.replace(/^\(/, ''), ').'))
    .filter(Boolean)
  return parts.length > 0 && parts.every((part) => /^[a-z]$/.test(part)) ? parts : null
}

const withAnswers = (draft: Draft): Choice[] => {
  const { choices, answers } = draft
  const letters = new Set(answers.flatMap((answer) => lettersIn(answer) ?? []))
  const words = new Set(answers.map(folded))
  return choices.map(({ text, right, feedback, letter }, i) => ({
    text,
    right: right || words.has(folded(text)) || letters.has(letter ?? String.fromCodePoint(97 + i)),
    ...(feedback === undefined ? {} : { feedback }),
  }))
}

const bodyOf = (draft: Draft): QuestionBody => {
  const { text, points, answers, isPattern, feedback, model } = draft
  const shared = {
    text: text.map((line) => `<p>${escapeHtml(line)}</p>`).join(''),
    points,
    ...(feedback === undefined ? {} : { feedback }),
  }
  if (draft.choices.length > 0) {
    const choices = withAnswers(draft)
    const says = choices.map((choice) => truth.get(folded(choice.text)))
    if (choices.length === 2 && says[0] !== says[1] && !says.includes(undefined)) {
      const right = choices.findIndex((choice) => choice.right)
      if (right >= 0) return { ...shared, kind: 'true-or-false', right: says[right] === true }
    }
    const isSeveral =
      choices.filter(({ right }) => right).length > 1 || draft.choices.some(({ isBox }) => isBox)
    return {
      ...shared,
      kind: isSeveral ? 'several-answers' : 'one-answer',
      choices,
      shuffled: true,
    }
  }
  const [only] = answers
  const isTrue = answers.length === 1 && only !== undefined ? truth.get(folded(only)) : undefined
  if (isTrue !== undefined && !isPattern) return { ...shared, kind: 'true-or-false', right: isTrue }
  if (answers.length === 0)
    return { ...shared, kind: 'essay', ...(model === undefined ? {} : { model }) }
  return isPattern || answers.some((answer) => answer.includes('*'))
    ? { ...shared, kind: 'pattern', answers }
    : { ...shared, kind: 'short-answer', answers }
}

/** How questions are numbered in a list: `1.` or `1)`; null where they are not, and an empty line stands between them. */
const numberingOf = (lines: readonly string[]): string | null => {
  for (const line of lines) {
    const found = /^\s*(?:question\s+|q\s?)?\d{1,3}\s*([.):])(?:\s|$)/i.exec(line)
    if (found) return found[1] ?? null
  }
  return null
}

const emptyDraft = (line: number, text: string, points: number | null): Draft => ({
  line,
  text: text === '' ? [] : [text],
  points: points ?? 1,
  choices: [],
  answers: [],
  isPattern: false,
  model: undefined,
  feedback: undefined,
})

const take = (draft: Draft, read: QuestionLine): void => {
  const last = draft.choices.at(-1)
  switch (read.is) {
    case 'choice':
      draft.choices.push({
        text: read.text,
        right: read.right,
        letter: read.letter,
        isBox: read.isBox,
      })
      return
    case 'answer':
      draft.answers.push(...read.answers)
      draft.isPattern ||= read.isPattern
      return
    case 'feedback':
      if (read.ofChoice && last) last.feedback = read.text
      else draft.feedback = read.text
      return
    case 'model':
      draft.model = read.text
      return
    case 'question':
    case 'words':
      if (read.points !== null) draft.points = read.points
      if (read.text === '') return
      // What goes on after an answer belongs to it; what goes on after the question is another paragraph of it.
      if (last) last.text = `${last.text} ${read.text}`
      else draft.text.push(read.text)
  }
}

/**
 * Reads questions from a list as people type it or paste it: `1. …`, below it `a) …`, the right ones with a star before or after
 * them, or named in a line `Answer: b`. A line `Answer: …` with words makes a short answer, with a `*` in it a pattern; nothing at all
 * makes an essay. `(2 points)` is what a question is worth, `~ …` or `Feedback: …` what is told afterwards.
 */
export const readTypedQuestions = (text: string): TypedQuestions => {
  // A run of spaces says no more than one, and patterns would look from each of them anew.
  const lines = text.split(/\r\n?|\n/).map((line) => line.replace(/\s{2,}/g, ' '))
  const numbering = numberingOf(lines)
  const drafts: Draft[] = []
  const unread: TypedQuestions['unread'] = []
  let afterEmpty = true
  lines.forEach((line, i) => {
    if (line.trim() === '') {
      afterEmpty = true
      return
    }
    const draft = drafts.at(-1)
    const read = kindOfLine(line, numbering, draft?.choices ?? [])
    const begins =
      read.is === 'question' || (numbering === null && afterEmpty && read.is === 'words')
    if (begins && (read.is === 'question' || read.is === 'words'))
      drafts.push(emptyDraft(i + 1, read.text, read.points))
    else if (draft) take(draft, read)
    else unread.push({ line: i + 1, text: line.trim() })
    afterEmpty = false
  })
  return { questions: drafts.map((draft) => ({ line: draft.line, body: bodyOf(draft) })), unread }
}
