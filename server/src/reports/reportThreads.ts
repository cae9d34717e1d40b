import { Worker } from 'node:worker_threads'
import type { ReportedCourse, ReportFormatName } from '@wickerframe/interchange/report'
import { ReportGivenUp, type ReportHead, type ReportWriter } from './reportWriter.ts'

/** What a thread is told: some courses, and in the end what to make of all of them. */
export type ReportMessage =
  | { courses: readonly ReportedCourse[] }
  | { format: ReportFormatName; head: ReportHead }

export interface ReportThreadsSettings {
  /** Reports that are written at once; who asks for more is told to come again. */
  threads: number
  /** For one report, from its first course to its last byte. */
  deadlineSeconds: number
  mostMegabytes: number
}
const usual: ReportThreadsSettings = { threads: 2, deadlineSeconds: 120, mostMegabytes: 1500 }

/**
 * Writes each report in a thread of its own, which gets the courses as they are read and is ended with the report.
 * @param file program of the thread
 */
export const reportThreads = (
  file: string,
  { threads, deadlineSeconds, mostMegabytes }: ReportThreadsSettings = usual,
): ReportWriter => {
  let underWay = 0
  return {
    write: async (format, head, courses) => {
      if (underWay >= threads)
        throw new ReportGivenUp('other reports are being written; ask again in a moment')
      underWay += 1
      const worker = new Worker(file, { resourceLimits: { maxOldGenerationSizeMb: mostMegabytes } })
      let clock: NodeJS.Timeout | undefined
      const written = new Promise<Uint8Array>((done, failed) => {
        worker.once('message', done)
        worker.once('error', (cause) =>
          failed(new ReportGivenUp(`the report could not be written: ${cause.message}`)),
        )
        worker.once('exit', () => failed(new ReportGivenUp('the report could not be written')))
        clock = setTimeout(
          () =>
            failed(
              new ReportGivenUp(
                `the report was given up after ${deadlineSeconds} seconds; ask for fewer courses`,
              ),
            ),
          deadlineSeconds * 1000,
        )
      })
      // It may fail while courses are still being read.
      written.catch(() => undefined)
      try {
        for await (const some of courses)
          worker.postMessage({ courses: some } satisfies ReportMessage)
        worker.postMessage({ format, head } satisfies ReportMessage)
        return await written
      } finally {
        clearTimeout(clock)
        underWay -= 1
        void worker.terminate()
      }
    },
  }
}
