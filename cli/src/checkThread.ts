import { parentPort } from 'node:worker_threads'
import { fileChecker, type Checked } from './checkFiles.ts'
import type { CourseFiles } from './courseFiles.ts'
import { Unusable } from './unusable.ts'

/** What the thread is asked for, by a number of its own. */
export interface FilesToCheck {
  id: number
  files: CourseFiles
  asOf: string | undefined
  /** Whether what passed and the pairs are wanted as well. */
  whole: boolean
}

const checker = fileChecker({
  input: () => Promise.reject(new Unusable('a thread has no standard input')),
})

/** What is found alone: what passed is most of a result, and is not read where only findings are told. */
const brief = (checked: Checked): Checked =>
  'result' in checked
    ? {
        result: {
          ...checked.result,
          pairs: [],
          outcomes: checked.result.outcomes.filter(
            ({ outcome }) => outcome === 'failed' || outcome === 'cannot-tell',
          ),
        },
      }
    : checked

parentPort?.on('message', ({ id, files, asOf, whole }: FilesToCheck) => {
  void checker
    .tryCheck(files, asOf)
    .then((checked) => parentPort?.postMessage({ id, checked: whole ? checked : brief(checked) }))
})
