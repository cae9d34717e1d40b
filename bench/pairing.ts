/**
 * Measures pairing and findings on edited courses whose truth is known. `npm run bench:pairing` prints the evaluation: seeds
 * and an edit model not used in development. `-- first 7` prints the first model with seed 7 (development);
 * `-- third` is strict and of another college; `-- first 7 wrong` lists what went wrong. A benchmark, not a test: it prints and asserts nothing.
 */
import {
  together,
  editLevels,
  f1Of,
  identities,
  makeCorpus,
  noTally,
  precisionOf,
  recallOf,
  scoreCase,
  type ModelName,
  type RuleScore,
  type Tally,
} from '@wickerframe/demo'

const model: ModelName =
  process.argv[2] === 'first' || process.argv[2] === 'third' ? process.argv[2] : 'other'
const seed = Number(process.argv[3] ?? 90_001)
const showWrong = process.argv[4] === 'wrong'
const count = Number(process.env.CASES ?? 40)
const share = (value: number) => value.toFixed(4)

const rules = new Map<string, RuleScore>()
const bins = new Map<number, { right: number; all: number }>()
for (const level of editLevels)
  for (const identity of identities) {
    let pairing: Tally = noTally()
    let findings: Tally = noTally()
    let falseMusts = 0
    const wrong = new Map<string, number>()
    const start = performance.now()
    for (const given of makeCorpus(model, level, identity, count, seed)) {
      const scored = scoreCase(given)
      pairing = together(pairing, scored.pairing)
      findings = together(findings, scored.findings)
      falseMusts += scored.falseMusts
      for (const [rule, score] of scored.rules) {
        const sum = rules.get(rule) ?? { found: 0, missed: 0, wrong: 0 }
        sum.found += score.found
        sum.missed += score.missed
        sum.wrong += score.wrong
        rules.set(rule, sum)
      }
      for (const { confidence, right } of scored.confidences) {
        const bin = Math.min(9, Math.floor(confidence * 10))
        const known = bins.get(bin) ?? { right: 0, all: 0 }
        bins.set(bin, { right: known.right + Number(right), all: known.all + 1 })
      }
      if (showWrong)
        for (const line of scored.wrong) {
          const kind = line
            .replace(/#[^ ]*/g, '#')
            .replace(/own-[^ ,)]*|\w-(?:first|other)-[^ ,)]*/g, 'ID')
            .replace(/[\d.]+:/, '')
            .slice(0, 150)
          wrong.set(kind, (wrong.get(kind) ?? 0) + 1)
        }
      if (showWrong && process.argv[5] === level && identity === 'none')
        console.log(given.name, scored.wrong)
    }
    console.log(
      `${level.padEnd(6)} identity ${identity.padEnd(11)} ${count} courses  pairing F1 ${share(f1Of(pairing))} (precision ${share(precisionOf(pairing))}, recall ${share(recallOf(pairing))})  findings precision ${share(precisionOf(findings))} recall ${share(recallOf(findings))} (${findings.wanted} true), ${(falseMusts / count).toFixed(3)} false musts  ${((performance.now() - start) / count).toFixed(0)} ms a course`,
    )
    if (showWrong)
      for (const [line, times] of [...wrong].sort((a, b) => b[1] - a[1]).slice(0, 14))
        console.log(`    ${times} ${line}`)
  }
console.log('confidence told → share right (pairs by evidence)')
for (const [bin, { right, all }] of [...bins].sort((a, b) => a[0] - b[0]))
  console.log(
    `  ${(bin / 10).toFixed(1)} to ${((bin + 1) / 10).toFixed(1)}: ${share(right / all)} of ${all}`,
  )
console.log('by rule, at all levels and identities: found, missed, told wrongly')
for (const [rule, { found, missed, wrong }] of [...rules].sort(([a], [b]) => (a < b ? -1 : 1)))
  console.log(
    `  ${rule.padEnd(24)} ${String(found).padStart(5)} ${String(missed).padStart(5)} ${String(wrong).padStart(5)}`,
  )
