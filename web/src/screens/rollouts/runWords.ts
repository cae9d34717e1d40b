import type { RunDetail, RunSummary, TaskState } from '@wickerframe/contract'
import { plural } from '../../controls/controls.tsx'

export const taskWords: Record<TaskState, string> = {
  'to-plan': 'to be planned',
  planned: 'planned',
  waiting: 'waiting',
  'at-work': 'at work',
  sent: 'sent, waiting for the answer',
  held: 'waits for approval again',
  done: 'done',
  failed: 'failed',
  cancelled: 'left out',
}
export const taskOrder: readonly TaskState[] = [
  'held',
  'failed',
  'sent',
  'at-work',
  'waiting',
  'to-plan',
  'planned',
  'done',
  'cancelled',
]

const stateWords: Partial<Record<RunSummary['state'], string>> = {
  paused: 'paused',
  planned: 'waits for approval',
  planning: 'being planned',
}

/** How a run stands, in a few words. */
export const runWords = (run: RunSummary): string => {
  const { done, failed, waiting, cancelled, held, planned } = run.counts
  const open = waiting + run.counts['at-work'] + run.counts.sent + run.counts['to-plan']
  return [
    open > 0 ? `${open} to go` : '',
    run.state === 'planned' || run.state === 'planning'
      ? planned > 0
        ? `${planned} planned`
        : ''
      : `${done} done`,
    failed > 0 ? `${failed} failed` : '',
    held > 0 ? `${held} to approve again` : '',
    cancelled > 0 ? `${cancelled} left out` : '',
    stateWords[run.state] ?? '',
  ]
    .filter(Boolean)
    .join(', ')
}

export const speedWords = (perSecond: number | null, secondsLeft: number | null): string =>
  perSecond === null || secondsLeft === null
    ? ''
    : `${perSecond >= 1 ? `${perSecond.toFixed(1)} courses a second` : `${(perSecond * 60).toFixed(0)} courses a minute`}, about ${secondsLeft < 90 ? `${Math.ceil(secondsLeft)} s` : `${Math.ceil(secondsLeft / 60)} min`} left`

export const isOver = ({ state }: Pick<RunSummary, 'state'>): boolean =>
  state === 'done' || state === 'cancelled'

/** What courses of a run that were tried wait for, in a sentence; empty where none waits. */
export const waitsForWords = ({ waitsFor, counts, state }: RunDetail): string => {
  if (waitsFor === null || (state !== 'planning' && state !== 'running')) return ''
  const { message, courses } = waitsFor
  const alone = Object.values(counts).reduce((sum, count) => sum + count, 0) === 1
  return `${alone ? 'It waits' : `${plural(courses, 'course')} ${courses === 1 ? 'waits' : 'wait'}`}: ${message}. It is tried again by itself.`
}

/** How many courses a run is about, and with how many the present stretch is over: planning, or carrying out. */
export const progressOf = ({ counts, state }: Pick<RunSummary, 'counts' | 'state'>) => {
  const all = Object.values(counts).reduce((sum, count) => sum + count, 0)
  return {
    all,
    over:
      state === 'planning'
        ? all - counts['to-plan'] - counts['at-work']
        : counts.done + counts.failed + counts.cancelled + counts.held,
  }
}

/** A run whose plans are looked over, course by course, before any of them is approved. */
export const showsPlans = ({ kind, order, state }: Pick<RunDetail, 'kind' | 'order' | 'state'>) =>
  kind === 'rollout' && order !== null && (state === 'planning' || state === 'planned')

/** What can be done with a run as it stands. */
export const runActions = (run: RunDetail) => {
  const { counts, kind, state } = run
  const { all, over } = progressOf(run)
  const looksOver = showsPlans(run)
  const goesOn = (state === 'running' || state === 'paused') && over < all
  return {
    approve: state === 'planned' && !looksOver,
    drop: state === 'planned' || state === 'planning',
    wayBack: kind === 'renames' && state === 'done' && counts.done > 0,
    pause: state === 'running' && goesOn,
    goOn: state === 'paused',
    leaveOut: goesOn,
    tryAgain: counts.failed > 0 && !looksOver,
  }
}
