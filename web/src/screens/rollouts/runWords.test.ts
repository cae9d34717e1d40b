import { describe, expect, it } from 'vitest'
import { taskStates, type RunDetail, type TaskState } from '@wickerframe/contract'
import { runDetail, runTask } from '../../testing/answers.testing.ts'
import {
  progressOf,
  runActions,
  runWords,
  speedWords,
  taskOrder,
  waitsForWords,
} from './runWords.ts'

const run = (states: TaskState[], more: Partial<RunDetail> = {}) =>
  runDetail(
    states.map((state, i) => runTask(i + 1, { state })),
    more,
  )
const every = (states: readonly TaskState[]) => [...states].sort()

describe('how far a run is', () => {
  it('counts every state of a task once', () => {
    expect(every(taskOrder)).toEqual(every(taskStates))
    expect(progressOf(run([...taskStates])).all).toBe(taskStates.length)
  })
  it('is never past its end, whatever stands in which state', () => {
    for (const state of ['planning', 'running'] as const)
      for (const task of taskStates) {
        const { all, over } = progressOf(run([task, task], { state }))
        expect([0, 2]).toContain(over)
        expect(all).toBe(2)
      }
  })
  it('while plans are made is how many are made', () => {
    expect(
      progressOf(run(['to-plan', 'at-work', 'planned', 'failed'], { state: 'planning' })),
    ).toEqual({ all: 4, over: 2 })
  })
  it.each<[TaskState[], number, RunDetail['state'], string]>([
    [['waiting'], 1, 'running', 'It waits: the platform is away. It is tried again by itself.'],
    [
      ['waiting', 'done'],
      1,
      'running',
      '1 course waits: the platform is away. It is tried again by itself.',
    ],
    [
      ['to-plan', 'to-plan', 'planned'],
      2,
      'planning',
      '2 courses wait: the platform is away. It is tried again by itself.',
    ],
    [['waiting'], 1, 'paused', ''],
    [['waiting'], 1, 'cancelled', ''],
  ])(
    'of courses %j says what %i of them wait for while it is %s',
    (states, courses, state, words) => {
      const waitsFor = { message: 'the platform is away', courses }
      expect(waitsForWords(run(states, { state, waitsFor }))).toBe(words)
      expect(waitsForWords(run(states, { state }))).toBe('')
    },
  )
  it('is said in a few words, what is left first', () => {
    expect(runWords(run(['waiting', 'done', 'failed', 'held'], { state: 'paused' }))).toBe(
      '1 to go, 1 done, 1 failed, 1 to approve again, paused',
    )
    expect(runWords(run(['planned', 'planned'], { state: 'planned' }))).toBe(
      '2 planned, waits for approval',
    )
  })
  it.each([
    [null, 10, ''],
    [2, 30, '2.0 courses a second, about 30 s left'],
    [0.5, 600, '30 courses a minute, about 10 min left'],
  ])('at %s a second with %s seconds left is “%s”', (perSecond, secondsLeft, said) => {
    expect(speedWords(perSecond, secondsLeft)).toBe(said)
  })
})

describe('what can be done with a run', () => {
  const order = { mode: 'house-text', houseText: 'muster' } as const
  const offered = (detail: RunDetail) =>
    Object.entries(runActions(detail)).flatMap(([action, isOffered]) => (isOffered ? [action] : []))
  it('whose plans are looked over is approved there, course by course', () => {
    expect(offered(run(['planned'], { kind: 'rollout', state: 'planned', order }))).toEqual([
      'drop',
    ])
  })
  it('that is over leaves nothing to pause or leave out', () => {
    expect(offered(run(['done', 'cancelled'], { kind: 'rollout', order }))).toEqual([])
  })
  it('offers the way back only where names were given', () => {
    expect(offered(run(['done'], { state: 'done', kind: 'mends' }))).toEqual([])
    expect(offered(run(['failed'], { state: 'done' }))).toEqual(['tryAgain'])
    expect(offered(run(['done'], { state: 'done' }))).toEqual(['wayBack'])
  })
})
