import { totalsOf, type Report } from '@wickerframe/interchange/report'

const verdicts = {
  ready: 'ready',
  'not-ready': 'not ready',
  'ready-as-far-as-seen': 'ready as far as seen',
} as const
const widest = Math.max(...Object.values(verdicts).map((words) => words.length))

const count = (figure: number, one: string, many = `${one}s`): string =>
  `${figure} ${figure === 1 ? one : many}`

/** Checks of many courses as people read them in a terminal: a line for each, its open musts below it, and what it comes to at the end. */
export const manyText = (report: Report): string => {
  const lines = report.courses.flatMap(({ result, at }) => {
    const fresh = report.since?.fresh.get(result.course.id)
    const gone = report.since?.gone.get(result.course.id) ?? []
    return [
      `${verdicts[result.readiness].padEnd(widest)}  ${result.course.name} (${at}): ${count(result.counts.openMusts, 'open must')}, ${count(result.counts.openShoulds, 'open should')}`,
      ...result.findings
        .filter(
          ({ strength, places }) => strength === 'must' && places.some(({ waived }) => !waived),
        )
        .map(
          ({ rule, message, places }) =>
            `  ${places.some(({ fingerprint }) => fresh?.has(fingerprint)) ? 'new: ' : ''}${message} [${rule}]`,
        ),
      ...gone.map(({ rule, message }) => `  gone: ${message} [${rule}]`),
    ]
  })
  const totals = totalsOf(report)
  const places = (of: Iterable<{ size: number } | readonly unknown[]> | undefined): number =>
    [...(of ?? [])].reduce((sum, one) => sum + ('size' in one ? one.size : one.length), 0)
  return `${[
    ...lines,
    ...report.failed.map(({ at, message }) => `not checked           ${at}: ${message}`),
    '',
    `${count(totals.courses, 'course')}: ${totals.ready} ready, ${totals.readyAsFarAsSeen} ready as far as seen, ${totals.courses - totals.ready - totals.readyAsFarAsSeen} not ready; ${count(totals.openMusts, 'open must')}, ${count(totals.openShoulds, 'open should')}; ${totals.cannotTell} could not be told${totals.failed > 0 ? `; ${count(totals.failed, 'course')} could not be checked` : ''}.`,
    ...(report.since
      ? [
          `Since ${report.since.asOf}: ${count(places(report.since.fresh.values()), 'place')} new, ${places(report.since.gone.values())} gone.`,
        ]
      : []),
  ].join('\n')}\n`
}
