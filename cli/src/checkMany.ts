import { Worker } from 'node:worker_threads'
import { fileChecker, type Checked } from './checkFiles.ts'
import type { FilesToCheck } from './checkThread.ts'
import type { Streams } from './command.ts'
import type { CourseFiles } from './courseFiles.ts'

/** Fewer are checked before a thread has started. */
const fewestForThreads = 8

/** The program of a thread stands beside the bundle; from the sources there is none, and all are checked here. */
const thread = import.meta.url.endsWith('.ts') ? null : new URL('checkThread.mjs', import.meta.url)

/**
 * Checks courses, in threads where there are many.
 * @param jobs threads at most
 * @param whole whether what passed is told as well
 * @returns what came of each, in the order given
 */
export const checkMany = async (
  courses: readonly CourseFiles[],
  { asOf, jobs, whole }: { asOf: string | undefined; jobs: number; whole: boolean },
  input: Pick<Streams, 'input'>,
): Promise<Checked[]> => {
  const threads = Math.min(jobs, Math.ceil(courses.length / fewestForThreads))
  if (thread === null || threads < 2) {
    const checker = fileChecker(input)
    const checked: Checked[] = []
    for (const files of courses) checked.push(await checker.tryCheck(files, asOf))
    return checked
  }
  const checked: Checked[] = []
  let next = 0
  const lane = (program: URL) =>
    new Promise<void>((done, failed) => {
      const worker = new Worker(program)
      let held: CourseFiles | null = null
      const give = (): void => {
        const id = next
        const files = courses[id]
        if (!files) {
          void worker.terminate().then(() => done())
          return
        }
        next += 1
        held = files
        worker.postMessage({ id, files, asOf, whole } satisfies FilesToCheck)
      }
      worker.on('message', ({ id, checked: came }: { id: number; checked: Checked }) => {
        checked[id] = came
        give()
      })
      worker.on('error', (cause) =>
        failed(
          new Error(`a thread died over ${held?.course ?? 'nothing'}: ${String(cause)}`, { cause }),
        ),
      )
      give()
    })
  await Promise.all(Array.from({ length: threads }, () => lane(thread)))
  return checked
}
