import { describe, expect, it } from 'vitest'
import { letIn } from '../allow/index.ts'
import { checkCourse } from '../check/index.ts'
import { fileNameFor } from '../files/index.ts'
import { readListed } from '../listed/index.ts'
import { foldedName } from '../naming/index.ts'
import { readableDifference } from '../page/index.ts'
import { copyMark } from '../pair/index.ts'
import { readPasted, readPastedText } from '../paste/index.ts'
import { readTypedQuestions, typedOfHtml } from '../questions/index.ts'
import { exampleCourse } from '../rules/example/exampleCourse.ts'
import { parseRepeat } from '../template/index.ts'
import { bytesOfBase64 } from '../template/imageBytes.ts'
import { processorMilliseconds } from './processorTime.testing.ts'

const length = 30_000
/** Signs, and pairs of them, that somebody leans on, a form draws lines of, or a program repeats. */
const signs = [...'.,-_?/:;)[@=*1a', ' ', '\u00a0', '\n', '?\n', ' .', '1/', 'a ', '<br>']
/** What may stand before them, so that something begins to read. */
const beginnings = ['', 'Phone: ', 'Week 3, due ', '[']
const attribute = (text: string): string => text.replace(/["<>]/g, '')
const anywhere = (text: string): string =>
  [
    `<h2>${text}x</h2><p>${text}x</p><table><tr><td>${text}x</td></tr></table>`,
    `<p style="background:${attribute(text)}x"><a href="${attribute(text)}x">${text}x</a></p>`,
    `<p><img src="${attribute(text)}x" alt="${attribute(text)}x"></p>`,
  ].join('')

/** Everything that reads what people write, paste or send. */
const readers: Readonly<Record<string, (runs: readonly string[]) => unknown>> = {
  'a check of a course with such a page': (runs) => {
    const shown = exampleCourse()
    for (const [i, text] of runs.entries()) shown.item('week-overview', i + 1).html = anywhere(text)
    return checkCourse({ ...shown, asOf: '2026-09-16' })
  },
  'what is let in': ([text = '']) => letIn(anywhere(text)),
  'what is pasted': ([text = '']) => readPasted(anywhere(text)),
  'what is pasted as plain text': (runs) => runs.map((text) => readPastedText(`${text}x`)),
  'a list of parts': (runs) => readListed(runs.map((text) => `${text}x`).join('\n')),
  'typed questions': (runs) =>
    runs.map((text) =>
      readTypedQuestions(`1. ${text}x\na) ${text}x\nb) x ${text}\nAnswer: ${text}`),
    ),
  'pasted questions': (runs) => runs.map((text) => typedOfHtml(`<p>1. ${text}x</p>`)),
  'a difference of words': (runs) =>
    runs.map((text) => readableDifference(`the ${text}x tide`, `the ${text}y tide`)),
  'names, repeats, files and images': (runs) =>
    runs.map((text) => [
      foldedName(`${text}x`),
      copyMark.test(`${text}x`),
      fileNameFor(`${text}x.pdf`),
      bytesOfBase64(`${text}x`),
      parseRepeat(`${text}x`),
    ]),
}

describe.each(Object.entries(readers))('%s', (_, read) => {
  it('takes time in proportion to a text, also where one sign is repeated thirty thousand times', () => {
    for (const sign of signs) {
      const runs = beginnings.map(
        (beginning) => beginning + sign.repeat(Math.ceil(length / sign.length)),
      )
      const took = processorMilliseconds(() => read(runs))
      expect({ sign, took: took < 2500 ? 'little' : took }).toEqual({ sign, took: 'little' })
    }
  })
})
