import type { CheckResult, Finding } from '@wickerframe/core'

const whoseMove = (finding: Finding): string =>
  finding.mender === 'instructor' ? (finding.owner ?? 'the instructor') : `the ${finding.mender}`

const matchWords = {
  hand: 'joined by hand',
  recorded: 'recorded',
  evidence: 'by evidence',
} as const

const verdicts = {
  ready: 'Ready.',
  'not-ready': 'Not ready.',
  'ready-as-far-as-seen': 'Ready as far as seen.',
} as const

/** A check as people read it in a terminal. */
export const checkText = (result: CheckResult, withPairs: boolean): string => {
  const { counts } = result
  const lines = [
    `${result.course.name}: ${result.template.title}${result.template.version === null ? '' : `, version ${result.template.version}`}, as of ${result.asOf}`,
    `${verdicts[result.readiness]} ${counts.met} of ${counts.requirements} requirements met; ${counts.openMusts} open musts, ${counts.openShoulds} open shoulds; ${counts.cannotTell} could not be told.`,
  ]
  for (const finding of result.findings) {
    lines.push(
      '',
      `${finding.strength === 'must' ? 'Open must' : finding.strength === 'should' ? 'Open should' : 'For information'} · ${finding.rule} · ${whoseMove(finding)}`,
      `  ${finding.message}`,
    )
    for (const place of finding.places.slice(0, 20))
      lines.push(
        `    ${place.place.path.join(' › ')}: ${place.evidence.map((seen) => `“${seen.text}”`).join(', ')}`,
      )
  }
  const untold = result.outcomes.filter((outcome) => outcome.outcome === 'cannot-tell')
  if (untold.length > 0)
    lines.push(
      '',
      'Could not be told:',
      ...untold.map((outcome) => `  ${outcome.rule}: ${outcome.reason ?? ''}`),
    )
  if (withPairs) {
    lines.push(
      '',
      'Pairs:',
      ...result.pairs.map(
        (pair) =>
          `  ${pair.part}${pair.repetition === null ? '' : ` ${pair.repetition}`} = ${pair.path.join(' › ')} (${matchWords[pair.by]}${pair.moved ? ', moved' : ''}, ${pair.confidence}; ${pair.reasons.join(', ')})`,
      ),
    )
    lines.push(
      ...result.merged.map(
        ({ expected, found }) => `  ${expected.join(' and ')} stand together in ${found}`,
      ),
      ...result.split.map(
        ({ expected, found }) => `  ${expected} was taken apart into ${found.join(' and ')}`,
      ),
    )
    lines.push(
      ...result.missing.map((part) => `  ${part} = nothing found`),
      ...result.extra.map((found) => `  nothing expected = ${found}`),
    )
  }
  return `${lines.join('\n')}\n`
}
