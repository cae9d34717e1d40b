import { Worker } from 'node:worker_threads'
import type { JudgeAnswer, JudgeQuestion } from './judgeThread.ts'

export type Judge = (courseId: number, asOf: string, today: string) => Promise<JudgeAnswer>

/** Questions a thread holds at once: while one waits for the database, the next is worked out. */
const perThread = 2

interface Waiting {
  question: JudgeQuestion
  answered: (answer: JudgeAnswer) => void
}

/**
 * A pool of threads that judge courses, so that the process that talks to the platform stays free. A thread that dies
 * answers its questions as failed and is started again.
 * @param file program of the thread
 */
export const judgePool = (file: string, threads: number): { judge: Judge; stop: () => Promise<void> } => {
  const queue: Waiting[] = []
  let next = 0
  let stopping = false
  const lanes = Array.from({ length: threads }, () => ({ worker: null as Worker | null, held: new Map<number, Waiting>() }))
  type Lane = (typeof lanes)[number]

  const start = (lane: Lane): Worker => {
    const worker = new Worker(file)
    worker.on('message', ({ id, answer }: { id: number; answer: JudgeAnswer }) => {
      lane.held.get(id)?.answered(answer)
      lane.held.delete(id)
      give()
    })
    worker.on('error', (cause) => {
      for (const one of lane.held.values()) one.answered({ state: 'failed', message: cause instanceof Error ? cause.message : String(cause) })
      lane.held.clear()
      lane.worker = null
      if (!stopping) give()
    })
    return worker
  }
  const give = (): void => {
    for (const lane of lanes.toSorted((a, b) => a.held.size - b.held.size)) {
      while (lane.held.size < perThread) {
        const waiting = queue.shift()
        if (!waiting) return
        lane.worker ??= start(lane)
        lane.held.set(waiting.question.id, waiting)
        lane.worker.postMessage(waiting.question)
      }
    }
  }
  return {
    judge: (courseId, asOf, today) =>
      new Promise((answered) => {
        queue.push({ question: { id: ++next, courseId, asOf, today }, answered })
        give()
      }),
    stop: async () => {
      stopping = true
      await Promise.all(lanes.map((lane) => lane.worker?.terminate()))
    },
  }
}
