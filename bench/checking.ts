/** A process that checks the courses it is asked about, in two threads, and says how long it took. Started by `checks.ts`. */
import { bundle } from '@wickerframe/scripts/bundle'
import { checkPool } from '@wickerframe/server/checks/checkPool'

export interface CheckingQuestion {
  courseIds: number[]
  asOf: string
  today: string
}
export interface CheckingAnswer {
  seconds: number
  /** How many were known from before. */
  known: number
  /** Most memory the process held, threads and all, since it was started. */
  peakMegabytes: number
  /** Processor time of the process, in seconds. */
  cpuSeconds: number
  failed: string | null
}

const pool = checkPool(await bundle('server/src/worker.ts'), 2)
let peak = 0
const watch = setInterval(() => (peak = Math.max(peak, process.memoryUsage().rss)), 100)
process.on('message', ({ courseIds, asOf, today }: CheckingQuestion) => {
  const began = performance.now()
  const cpu = process.cpuUsage()
  void Promise.all(courseIds.map((id) => pool.checkCourse(id, asOf, today))).then((answers) => {
    const failed = answers.find((answer) => answer.state !== 'checked' && answer.state !== 'known')
    const used = process.cpuUsage(cpu)
    process.send?.({
      cpuSeconds: (used.user + used.system) / 1e6,
      seconds: (performance.now() - began) / 1000,
      known: answers.filter((answer) => answer.state === 'known').length,
      peakMegabytes: Math.round(peak / 1024 / 1024),
      failed: failed ? JSON.stringify(failed) : null,
    } satisfies CheckingAnswer)
  })
})
process.on('disconnect', () => {
  clearInterval(watch)
  void pool.stop()
})
