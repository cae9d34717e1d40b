import { emptyTemplate, newItem, newModule, type Template } from '@wickerframe/core'

const quantile = (times: readonly number[], share: number): number =>
  times.toSorted((a, b) => a - b)[Math.min(times.length - 1, Math.floor(times.length * share))] ?? 0
/** Median and 95th percentile of milliseconds, in words. */
export const told = (times: readonly number[]): string =>
  `median ${quantile(times, 0.5).toFixed(1)} ms, 95th percentile ${quantile(times, 0.95).toFixed(1)} ms`
/** A template of so many rows: modules of twenty parts each. */
export const templateOf = (rows: number): Template => ({
  ...emptyTemplate(`rows-${rows}`, `A template of ${rows} rows`),
  parts: Array.from({ length: Math.ceil(rows / 20) }, (_, m) => ({
    ...newModule(`module-${m}`, `Module ${m} of {code}`),
    items: Array.from({ length: 19 }, (__, i) => ({
      ...newItem('page', `page-${m}-${i}`, `Page ${m}.${i} of {code}`),
      blocks: [
        {
          kind: 'fixed-text' as const,
          key: 'say',
          strength: 'must' as const,
          html: `<p>What page ${m}.${i} says.</p>`,
        },
      ],
    })),
  })),
})
