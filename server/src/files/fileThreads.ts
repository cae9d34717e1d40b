import { Worker } from 'node:worker_threads'
import type { FileAnswer, FileKind, FileOptions, FileQuestion, FileReading } from './fileReaders.ts'

/** A file that could not be read to its end: it took too long or too much memory, or its reader failed. */
export class FileGivenUp extends Error {
  /** Whether that is for now: the same file may be read in a moment. */
  readonly isForNow: boolean
  constructor(message: string, isForNow = false) {
    super(message)
    this.isForNow = isForNow
  }
}

export interface FileThreads {
  /** Reads a file in a thread. @throws FileGivenUp in words for people */
  read: <K extends FileKind>(
    kind: K,
    bytes: Uint8Array,
    options: FileOptions<K>,
  ) => Promise<FileReading<K>>
  stop: () => Promise<void>
}

export interface FileThreadsSettings {
  threads: number
  /** For the reading itself, and so many bytes for each second more; waiting for a thread does not count. */
  deadlineSeconds: number
  slowestBytes: number
  mostMegabytes: number
  /** Files that may wait for a thread; who comes later is told to come again. */
  mostWaiting: number
}

const usual: FileThreadsSettings = {
  threads: 2,
  deadlineSeconds: 10,
  // A roster of 50,000 rows has 5 MB and takes 3 s here; on a machine that is slow or busy it is read all the same.
  slowestBytes: 250_000,
  mostMegabytes: 512,
  mostWaiting: 20,
}

interface Waiting {
  question: FileQuestion
  read: (reading: unknown) => void
  given: (cause: FileGivenUp) => void
}
interface Lane {
  worker: Worker | null
  at: Waiting | null
  clock: NodeJS.Timeout | undefined
}

/**
 * Threads that read files, so that no file can stop the process that serves people. A thread that is not done at the
 * deadline is ended, with what it had; the next file has a new one.
 * @param file program of the thread
 */
export const fileThreads = (
  file: string,
  {
    threads,
    deadlineSeconds,
    slowestBytes,
    mostMegabytes,
    mostWaiting,
  }: FileThreadsSettings = usual,
): FileThreads => {
  const queue: Waiting[] = []
  let next = 0
  let stopping = false
  const lanes: Lane[] = Array.from({ length: threads }, () => ({
    worker: null,
    at: null,
    clock: undefined,
  }))
  const done = (lane: Lane): Waiting | null => {
    const { at } = lane
    clearTimeout(lane.clock)
    lane.at = null
    return at
  }
  const end = (lane: Lane, words: string): void => {
    const { worker } = lane
    lane.worker = null
    const asked = done(lane)
    asked?.given(new FileGivenUp(words))
    void worker?.terminate()
    if (stopping) return
    // The next file does not wait for a thread to begin; one that ends by itself is only begun again for a file.
    if (asked) lane.worker = start(lane)
    give()
  }
  const start = (lane: Lane): Worker => {
    const worker = new Worker(file, { resourceLimits: { maxOldGenerationSizeMb: mostMegabytes } })
    worker.unref()
    worker.on('message', ({ id, reading, failed }: FileAnswer) => {
      if (lane.at?.question.id !== id) return
      const asked = done(lane)
      if (failed === undefined) asked?.read(reading)
      else asked?.given(new FileGivenUp(`the file could not be read: ${failed}`))
      give()
    })
    const gone = () => {
      if (lane.worker === worker)
        end(lane, 'the file could not be read: it asks for more than there is to give one file')
    }
    worker.on('error', gone)
    worker.on('exit', gone)
    return worker
  }
  const give = (): void => {
    for (const lane of lanes) {
      if (lane.at) continue
      const asked = queue.shift()
      if (!asked) return
      lane.worker ??= start(lane)
      lane.at = asked
      const seconds = deadlineSeconds + asked.question.bytes.byteLength / slowestBytes
      lane.clock = setTimeout(
        () =>
          end(
            lane,
            `the file was given up after ${Math.round(seconds)} seconds; make it smaller, or take out what repeats for ever`,
          ),
        seconds * 1000,
      )
      lane.worker.postMessage(asked.question)
    }
  }
  // They are there before the first file comes.
  for (const lane of lanes) lane.worker = start(lane)
  return {
    read: (kind, bytes, options) =>
      new Promise((resolve, reject) => {
        if (queue.length >= mostWaiting)
          return reject(
            new FileGivenUp('other files are being read; bring it in again in a moment', true),
          )
        queue.push({
          question: { id: ++next, kind, bytes, options } as FileQuestion,
          read: (reading) => resolve(reading as FileReading<typeof kind>),
          given: reject,
        })
        give()
      }),
    stop: async () => {
      stopping = true
      for (const waiting of [...queue.splice(0), ...lanes.flatMap((lane) => done(lane) ?? [])])
        waiting.given(new FileGivenUp('the server is being stopped', true))
      await Promise.all(lanes.map((lane) => lane.worker?.terminate()))
    },
  }
}
