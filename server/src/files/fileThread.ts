import { parentPort } from 'node:worker_threads'
import { fileReaders, type FileAnswer, type FileQuestion } from './fileReaders.ts'

const answerTo = async ({ id, kind, bytes, options }: FileQuestion): Promise<FileAnswer> => {
  try {
    const read = fileReaders[kind] as (bytes: Uint8Array, options: unknown) => unknown
    return { id, reading: await read(bytes, options) }
  } catch (cause) {
    return { id, failed: cause instanceof Error ? cause.message : String(cause) }
  }
}

/** Reads files for the main thread until it ends. Called in a worker thread. */
export const serveFiles = (): void => {
  parentPort?.on('message', (question: FileQuestion) => {
    void answerTo(question).then((answer) => parentPort?.postMessage(answer))
  })
}
