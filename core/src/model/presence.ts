import type { Repeat } from '../template/index.ts'

/** In which repetitions a part is wanted, as a rule that explains where it was found. */
export interface PresenceRule {
  /** For the part inside its repeated module; null: in each. */
  repeat: Pick<Repeat, 'every' | 'from' | 'to' | 'except'> | null
  /** Numbers the rule asks for. */
  wanted: number[]
  /** Share of the repetitions that agree with the rule. */
  agreement: number
}

const leastAgreement = 0.8
const fewest = 3
const mostExceptions = 3

/** The plainest rule that explains in which of the repetitions a part stands; null where it stands in too few. */
export const presenceRule = (
  present: ReadonlySet<number>,
  all: readonly number[],
): PresenceRule | null => {
  const first = all[0] ?? 1
  const last = all.at(-1) ?? 1
  const judged: (PresenceRule & { cost: number })[] = []
  const consider = (repeat: PresenceRule['repeat'], wanted: number[], cost: number) => {
    const agreeing = all.filter((number) => present.has(number) === wanted.includes(number)).length
    judged.push({ repeat, wanted, agreement: agreeing / all.length, cost })
  }
  consider(null, [...all], 0)
  for (const every of [2, 3, 4])
    for (const from of all.slice(0, every))
      consider(
        { every, from, except: [] },
        all.filter((number) => number >= from && (number - from) % every === 0),
        1,
      )
  const numbers = [...present].sort((a, b) => a - b)
  const [least = first] = numbers
  const most = numbers.at(-1) ?? last
  if (least > first || most < last)
    consider(
      {
        every: 1,
        ...(least > first ? { from: least } : {}),
        ...(most < last ? { to: most } : {}),
        except: [],
      },
      all.filter((number) => number >= least && number <= most),
      1,
    )
  const missing = all.filter((number) => !present.has(number))
  if (missing.length > 0 && missing.length <= mostExceptions && present.size >= all.length * 0.6)
    consider({ every: 1, except: missing }, numbers, missing.length)
  const step = 0.5 / Math.max(1, all.length)
  const [best] = judged.sort(
    (a, b) => b.agreement - b.cost * step - (a.agreement - a.cost * step) || a.cost - b.cost,
  )
  if (!best || present.size < fewest || best.agreement < leastAgreement)
    return present.size >= Math.max(fewest, all.length * 0.5)
      ? { repeat: null, wanted: [...all], agreement: present.size / all.length }
      : null
  return { repeat: best.repeat, wanted: best.wanted, agreement: best.agreement }
}
