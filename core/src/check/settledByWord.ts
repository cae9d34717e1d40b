import { ruleById } from '../rules/index.ts'
import type { Outcome } from './outcome.ts'

/** Whether somebody’s word settles a requirement: one that cannot be told, or that asks for a word. What can be seen is no matter of it. */
export const settledByWord = ({ rule, outcome }: Pick<Outcome, 'rule' | 'outcome'>): boolean =>
  outcome === 'cannot-tell' || ruleById(rule)?.asksForWord === true
