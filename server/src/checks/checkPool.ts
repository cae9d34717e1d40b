import { Worker } from 'node:worker_threads'
import type { CheckAnswer, CheckQuestions } from './checkThread.ts'

export type CheckCourse = (courseId: number, asOf: string, today: string) => Promise<CheckAnswer>
/** @param run whose draft is held against the course */
export type ForeseeCourse = (courseId: number, run: number, today: string) => Promise<CheckAnswer>

/** Sets of questions a thread holds at once: while one waits for the database, the next is worked out. */
const setsPerThread = 2
/** What is asked of the database is asked for so many courses together at most. */
const mostTogether = 64
/** Most memory of a thread. A check needs a twentieth of it; with no bound, what was dropped is left lying until there are gigabytes of it. */
const mostMegabytes = 2000

interface Waiting {
  id: number
  courseId: number
  asOf: string
  today: string
  impact: number | null
  /** A thread died over it and others: it is asked by itself, so that only what kills a thread fails. */
  alone: boolean
  answered: (answer: CheckAnswer) => void
}

/**
 * A pool of threads that check courses, so that the process that talks to the platform stays free. Questions that wait are
 * handed out in sets. A thread that dies is started again, and what it held is asked once more, each question by itself.
 * @param file program of the thread
 */
export const checkPool = (
  file: string,
  threads: number,
): { checkCourse: CheckCourse; foreseeCourse: ForeseeCourse; stop: () => Promise<void> } => {
  const queue: Waiting[] = []
  let next = 0
  let stopping = false
  const lanes = Array.from({ length: threads }, () => ({
    worker: null as Worker | null,
    sets: [] as Map<number, Waiting>[],
  }))
  type Lane = (typeof lanes)[number]

  const start = (lane: Lane): Worker => {
    const worker = new Worker(file, { resourceLimits: { maxOldGenerationSizeMb: mostMegabytes } })
    worker.on('message', ({ id, answer }: { id: number; answer: CheckAnswer }) => {
      for (const set of lane.sets) {
        set.get(id)?.answered(answer)
        set.delete(id)
      }
      lane.sets = lane.sets.filter((set) => set.size > 0)
      give()
    })
    let cause = 'the thread ended'
    worker.on('error', (error) => {
      cause = error instanceof Error ? error.message : String(error)
    })
    worker.on('exit', () => {
      const held = lane.sets.flatMap((set) => [...set.values()])
      lane.sets = []
      lane.worker = null
      for (const request of held.filter(({ alone }) => alone))
        request.answered({ state: 'failed', message: cause })
      queue.unshift(
        ...held.filter(({ alone }) => !alone).map((request) => ({ ...request, alone: true })),
      )
      if (!stopping) give()
    })
    return worker
  }
  /** The questions at the head of the queue that can be asked together. */
  const nextSet = (): Waiting[] => {
    const [first] = queue
    if (!first) return []
    // A short queue is shared among the threads.
    const most = first.alone ? 1 : Math.min(mostTogether, Math.ceil(queue.length / threads))
    let length = 1
    while (
      length < most &&
      queue[length]?.asOf === first.asOf &&
      queue[length]?.today === first.today &&
      queue[length]?.impact === first.impact &&
      queue[length]?.alone === false
    )
      length += 1
    return queue.splice(0, length)
  }
  const give = (): void => {
    for (;;) {
      const [lane] = lanes.toSorted((a, b) => a.sets.length - b.sets.length)
      if (!lane || lane.sets.length >= setsPerThread) return
      // What may kill a thread has one to itself.
      if (
        lane.sets.length > 0 &&
        (queue[0]?.alone || [...(lane.sets[0]?.values() ?? [])].some(({ alone }) => alone))
      )
        return
      const set = nextSet()
      const [first] = set
      if (!first) return
      lane.worker ??= start(lane)
      lane.sets.push(new Map(set.map((request) => [request.id, request])))
      lane.worker.postMessage({
        questions: set.map(({ id, courseId }) => ({ id, courseId })),
        impact: first.impact,
        asOf: first.asOf,
        today: first.today,
      } satisfies CheckQuestions)
    }
  }
  const ask = (asked: Omit<Waiting, 'id' | 'alone' | 'answered'>): Promise<CheckAnswer> =>
    new Promise((answered) => {
      queue.push({ ...asked, id: ++next, alone: false, answered })
      // Questions that come in one go are handed out together.
      if (queue.length === 1) queueMicrotask(give)
      else if (queue.length >= mostTogether) give()
    })
  return {
    checkCourse: (courseId, asOf, today) => ask({ courseId, asOf, today, impact: null }),
    foreseeCourse: (courseId, run, today) => ask({ courseId, asOf: today, today, impact: run }),
    stop: async () => {
      stopping = true
      await Promise.all(lanes.map((lane) => lane.worker?.terminate()))
    },
  }
}
