/**
 * Measures reading, mending and inferring of names on one core, and prints the figures of the corpus for the part used in
 * development and the part held back. A benchmark, not a test: it prints and asserts nothing.
 */
import { readFileSync } from 'node:fs'
import {
  formatOf,
  inferFormats,
  judgeName,
  readName,
  type FieldValues,
  type NameContext,
} from '@wickerframe/core'
import { readNameCorpus, type CorpusName } from '@wickerframe/demo'

const corpus = readNameCorpus(readFileSync('demo/names/corpus.txt', 'utf8'))
const contextOf = (entry: CorpusName): NameContext => ({
  places: [entry.values],
  near: entry.facts.term.firstDay,
  classSections: entry.facts.classSections,
})

/** The middle of several rounds, in names a second. */
const perSecond = (count: number, work: () => void): number => {
  const rounds = Array.from({ length: 9 }, () => {
    const start = performance.now()
    work()
    return count / ((performance.now() - start) / 1000)
  })
  return Math.round(rounds.toSorted((a, b) => a - b)[4] ?? 0)
}
const thousands = (number: number) => number.toLocaleString('en').padStart(9)

const byWeek = formatOf('Week {week} · {dates} · {topic}')
const week3: FieldValues = {
  code: 'NAV 110',
  week: 3,
  dates: { first: '2026-09-14', last: '2026-09-20' },
  start: '2026-09-14',
  end: '2026-09-20',
}
const mixed = Array.from({ length: 50_000 }, (_, i) =>
  i % 10 < 7
    ? `Week 3 · Sep 14 – Sep 20 · Tides ${i} of the sound`
    : i % 10 < 9
      ? `week 3 ·  Sep 14 - Sep 20 · Tides ${i}`
      : `wk 3 - Tides ${i}`,
)
console.log(
  `read, seven of ten follow, two with small differences, one not: ${thousands(
    perSecond(mixed.length, () => {
      for (const name of mixed) readName(byWeek, name, week3)
    }),
  )} names a second`,
)

const contexts = corpus.map(contextOf)
console.log(
  `mend, the corpus, each at its place:                            ${thousands(
    perSecond(corpus.length * 5, () => {
      for (let i = 0; i < 5; i++)
        corpus.forEach((entry, at) =>
          judgeName(entry.format, entry.name, contexts[at] ?? contextOf(entry)),
        )
    }),
  )} names a second`,
)

const places = Array.from({ length: 16 }, (_, i): FieldValues => ({
  ...week3,
  week: i + 1,
  dates: {
    first: `2026-${String(9 + Math.floor(i / 4)).padStart(2, '0')}-${String((i % 4) * 7 + 1).padStart(2, '0')}`,
    last: `2026-${String(9 + Math.floor(i / 4)).padStart(2, '0')}-${String((i % 4) * 7 + 7).padStart(2, '0')}`,
  },
}))
const anywhere: NameContext = { places, near: '2026-09-01', classSections: [] }
const list = Array.from(
  { length: 10_000 },
  (_, i) =>
    [
      `wk ${(i % 16) + 1} - Tides ${i}`,
      `Week ${(i % 16) + 1}: Streams no. ${i}`,
      `Semaine ${(i % 16) + 1} : Marées ${i} (5–11 Oct)`,
    ][i % 3] ?? '',
)
console.log(
  `mend, a list, at any of sixteen places:                         ${thousands(
    perSecond(list.length, () => {
      for (const name of list) judgeName(byWeek, name, anywhere)
    }),
  )} names a second`,
)
console.log(
  `infer formats from 10,000 names:                                ${thousands(perSecond(list.length, () => inferFormats(list)))} names a second`,
)

for (const heldBack of [false, true]) {
  const part = corpus.filter((entry) => entry.heldBack === heldBack)
  const judged = part.map((entry) => ({
    one: entry,
    judgement: judgeName(entry.format, entry.name, contextOf(entry)),
  }))
  const share = (holds: (entry: CorpusName, judgement: ReturnType<typeof judgeName>) => boolean) =>
    `${((100 * judged.filter(({ one: entry, judgement }) => holds(entry, judgement)).length) / part.length).toFixed(1)} %`
  console.log(
    `corpus, ${heldBack ? 'held back' : 'used in development'}: ${part.length} names; mended rightly ${share(({ right }, { mended }) => mended === right)}; wrong with confidence above 0.8 ${share(({ right }, { mended, confidence }) => mended !== null && mended !== right && confidence > 0.8)}`,
  )
}
