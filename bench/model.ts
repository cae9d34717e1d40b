/**
 * Measures what is proposed from a model course on generated courses with known truth: seeds that development never
 * used, clean and with edits. A benchmark, not a test: it prints and asserts nothing.
 */
import {
  factsOfRoster,
  makeRoster,
  precision,
  recall,
  scoreModels,
  type ModelScores,
} from '@wickerframe/demo'

const facts = factsOfRoster(makeRoster(48))
  .map(({ facts }) => facts)
  .filter(({ weeks }) => weeks >= 15)
const seeds = Array.from({ length: 150 }, (_, i) => 50_001 + i)
const names: Readonly<Record<keyof ModelScores, string>> = {
  repeats: 'repeats found (pairs of items)',
  formats: 'formats right',
  texts: 'fixed text and fill-ins told apart',
}
for (const edits of [false, true]) {
  const start = performance.now()
  const scores = scoreModels(facts, seeds, edits)
  console.log(
    `${seeds.length} ${edits ? 'courses with edits' : 'clean courses'}, ${((performance.now() - start) / seeds.length).toFixed(0)} ms a course:`,
  )
  for (const [name, score] of Object.entries(scores))
    console.log(
      `  ${names[name as keyof ModelScores].padEnd(36)} precision ${(precision(score) * 100).toFixed(1)} %, recall ${(recall(score) * 100).toFixed(1)} % (${score.found} of ${score.proposed} proposed, ${score.true} true)`,
    )
}
