import { escapeHtml, type AnswerType, type KeptBlockBody } from '../template/index.ts'

/** What is asked of the instructor. */
export type FillIn = Extract<KeptBlockBody, { kind: 'fill-in' }>

/** Words of no subject: what is said with them is an answer, whatever was asked. */
const words =
  'we settled this together and wrote it down here for everyone who works with us this term so that nobody has to ask twice and each of us can come back to it before the next meeting'.split(
    ' ',
  )

/** Sentences of so many words, each ten or fewer, the number in them so that no two answers are one. */
const sentences = (count: number, number: number): string => {
  const said = Array.from({ length: Math.max(1, count) }, (_, i) =>
    i === 1 ? String(number) : (words[(i + number) % words.length] ?? ''),
  )
  const lines: string[] = []
  for (let i = 0; i < said.length; i += 10) {
    const line = said.slice(i, i + 10).join(' ')
    lines.push(`${line.charAt(0).toUpperCase()}${line.slice(1)}.`)
  }
  return lines.join(' ')
}

const usualWords = 16

/**
 * What somebody writes who does all that a fill-in asks for: its shape, and as many words as it wants.
 * @param number which answer of the course it is, from 1
 * @returns HTML
 */
export const perfectAnswer = (
  { type, minWords = 0, maxWords = Number.POSITIVE_INFINITY }: FillIn,
  number: number,
  instructor: { email: string } | undefined,
): string => {
  const count = Math.min(Math.max(usualWords, minWords + 2), maxWords)
  const said = escapeHtml(sentences(count, number))
  switch (type) {
    case 'list': {
      const half = Math.ceil(count / 2)
      return `<ul><li>${escapeHtml(sentences(half, number))}</li><li>${escapeHtml(sentences(Math.max(1, count - half), number + 500))}</li></ul>`
    }
    case 'table':
      return `<table><thead><tr><th scope="col">What</th><th scope="col">How</th></tr></thead><tbody><tr><td>Number ${number}</td><td>${said}</td></tr></tbody></table>`
    case 'file':
      return `<p><a href="/files/answer-${number}.pdf">${said}</a></p>`
    case 'video':
      return `<p><a href="https://films.example/answer-${number}">${said} (4 minutes, captions)</a></p>`
    case 'image':
      return `<p><img src="/files/answer-${number}.png" alt="${said}"></p>`
    case 'link':
      return `<p><a href="https://pages.example/answer-${number}">${said}</a></p>`
    case 'e-mail': {
      const email = instructor?.email ?? 'instructor@example.org'
      return `<p><a href="mailto:${escapeHtml(email)}">${escapeHtml(email)}</a></p>`
    }
    default:
      return `<p>${said}</p>`
  }
}

/**
 * What somebody writes in place of one piece that asks: a line for a line, paragraphs for paragraphs.
 * @param piece HTML
 * @param number which answer of the course it is, from 1
 * @returns HTML
 */
export const perfectPiece = (piece: string, type: AnswerType, number: number): string => {
  const said = escapeHtml(sentences(usualWords, number))
  const answer =
    type === 'video'
      ? `<a href="https://films.example/answer-${number}">${said} (4 minutes, captions)</a>`
      : type === 'file'
        ? `<a href="/files/answer-${number}.pdf">${said}</a>`
        : said
  return /^\s*<(?:p|h[1-6]|ul|ol|dl|table|div|blockquote|figure|pre|hr)\b/i.test(piece)
    ? `<p>${answer}</p>`
    : answer
}
