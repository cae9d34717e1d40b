import type { TaskState } from '@wickerframe/contract'

/** What may become of a task: from which states, and into which. Every statement that changes a state takes it from here. */
export const transitions = {
  /** A worker takes it, to plan or to run it. */
  claim: { from: ['waiting', 'to-plan'], to: ['at-work'] },
  /** A worker takes up what was sent, to ask what became of it. */
  follow: { from: ['sent'], to: ['sent'] },
  /** What is sent is written down before it is. */
  send: { from: ['at-work', 'sent'], to: ['sent'] },
  /** A key that was refused or voided: it is planned anew. */
  'forget the key': { from: ['at-work', 'sent'], to: ['at-work'] },
  finish: { from: ['at-work', 'sent'], to: ['planned', 'done', 'held', 'failed'] },
  /** It is tried again later. */
  postpone: { from: ['at-work', 'sent'], to: ['to-plan', 'waiting', 'sent'] },
  /** Its worker is gone. */
  collect: { from: ['at-work'], to: ['to-plan', 'waiting', 'sent'] },
  /** A plan was approved. */
  approve: { from: ['planned'], to: ['waiting'] },
  /** A plan that came out differently was approved once more. */
  'approve again': { from: ['held'], to: ['waiting'] },
  /** Others were approved; where only something is to be decided, the course waits for that. */
  'leave out': { from: ['planned'], to: ['done', 'cancelled'] },
  cancel: { from: ['to-plan', 'planned', 'waiting', 'held'], to: ['cancelled'] },
  retry: { from: ['failed'], to: ['to-plan', 'waiting'] },
  /** The order of its run was changed. */
  'plan again': { from: ['planned', 'failed'], to: ['to-plan'] },
  /** Something was decided for its course, also after the run. */
  decide: { from: ['to-plan', 'planned', 'done', 'failed'], to: ['to-plan'] },
} as const satisfies Record<string, { from: readonly TaskState[]; to: readonly TaskState[] }>
export type Transition = keyof typeof transitions

/** States in which a task is still to come to something by itself: its run is open as long as one is. */
export const openStates = [
  'to-plan',
  'waiting',
  'at-work',
  'sent',
] as const satisfies readonly TaskState[]

/** States as SQL writes them in a list; they are constants of ours. */
export const statesInSql = (states: readonly TaskState[]): string =>
  states.map((state) => `'${state}'`).join(', ')
/** The states from which a transition goes, as SQL writes them in a list. */
export const fromStates = (transition: Transition): string =>
  statesInSql(transitions[transition].from)
