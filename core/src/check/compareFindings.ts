import { rules } from '../rules/index.ts'
import type { Finding } from './outcome.ts'

const rank = new Map(rules.map((rule, i) => [rule.id, i]))

/** Musts before shoulds, then in the order of the rules; findings of one rule keep the order of the course. */
export const compareFindings = (a: Finding, b: Finding): number =>
  Number(b.strength === 'must') - Number(a.strength === 'must') ||
  (rank.get(a.rule) ?? 0) - (rank.get(b.rule) ?? 0)
