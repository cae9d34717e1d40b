import { describe, expect, it } from 'vitest'
import { judgeName } from '@wickerframe/core'
import { readNameCorpus, type CorpusName } from './nameCorpus.ts'

const corpus = readNameCorpus()

/** Shares of a part of the corpus, and what they were made from. */
const figuresOf = (part: readonly CorpusName[]) => {
  const judged = part.map((entry) => ({
    one: entry,
    judgement: judgeName(entry.format, entry.name, {
      places: [entry.values],
      near: entry.facts.term.firstDay,
      classSections: entry.facts.classSections,
    }),
  }))
  const right = judged.filter(({ one: entry, judgement }) => judgement.mended === entry.right)
  const wrongAndSure = judged.filter(
    ({ one: entry, judgement }) =>
      judgement.mended !== null && judgement.mended !== entry.right && judgement.confidence > 0.8,
  )
  const read = judged.filter(
    ({ one: entry, judgement }) =>
      entry.right === null ||
      judgement.fields.every(
        (field) =>
          field.state === (entry.reading[field.field] ?? 'right') ||
          (field.state === 'absent' && field.expected === null),
      ),
  )
  return {
    names: part.length,
    right: right.length / part.length,
    wrongAndSure: wrongAndSure.length / part.length,
    read: read.length / part.length,
  }
}
const percent = (share: number) => `${(100 * share).toFixed(1)} %`

describe('the corpus of names', () => {
  it('is large and varied enough', () => {
    expect(corpus.length).toBeGreaterThanOrEqual(900)
    expect(new Set(corpus.map(({ format }) => format.source)).size).toBeGreaterThanOrEqual(25)
    expect(corpus.filter(({ heldBack }) => heldBack).length).toBeGreaterThanOrEqual(300)
  })
  it.each([
    ['used in development', false, 0.99, 0.006],
    ['held back', true, 0.975, 0.005],
  ])(
    'the part %s is mended rightly, and hardly ever wrongly with confidence',
    (title, heldBack, right, wrongAndSure) => {
      const figures = figuresOf(corpus.filter((entry) => entry.heldBack === heldBack))
      console.log(
        `names ${title}: ${figures.names}; mended rightly ${percent(figures.right)}; wrong with confidence above 0.8 ${percent(figures.wrongAndSure)}; fields read rightly ${percent(figures.read)}`,
      )
      // What is reached, so that nothing of it is lost unnoticed.
      expect(figures.right).toBeGreaterThanOrEqual(right)
      expect(figures.wrongAndSure).toBeLessThan(wrongAndSure)
      expect(figures.read).toBeGreaterThanOrEqual(0.995)
    },
  )
})
