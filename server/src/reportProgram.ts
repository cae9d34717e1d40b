import { parentPort } from 'node:worker_threads'
import type { ReportedCourse } from '@wickerframe/interchange/report'
import { reportBytes } from './reports/reportWriter.ts'
import type { ReportMessage } from './reports/reportThreads.ts'

// The program of a thread that writes one report: what takes seconds stops nobody who is served meanwhile.
const courses: ReportedCourse[] = []
parentPort?.on('message', (message: ReportMessage) => {
  if ('courses' in message) {
    courses.push(...message.courses)
    return
  }
  const { format, head } = message
  void reportBytes(format, { ...head, courses, failed: [], since: null }).then((bytes) =>
    parentPort?.postMessage(bytes),
  )
})
