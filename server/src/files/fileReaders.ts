import {
  readCourseValues,
  readFreeDays,
  readHandout,
  readRoster,
  readRubric,
} from '@wickerframe/interchange'
import type { MakeCourses } from '@wickerframe/interchange'

/** What reads each kind of file that people bring in. All of them run in threads with a deadline. */
export const fileReaders = {
  'free-days': (bytes: Uint8Array, { from, until }: { from: string; until: string }) =>
    readFreeDays(new TextDecoder('utf-8').decode(bytes), from, until),
  roster: (bytes: Uint8Array, { making }: { making: MakeCourses | null }) =>
    readRoster(bytes, making),
  'course-values': (bytes: Uint8Array) => readCourseValues(bytes),
  rubric: (bytes: Uint8Array) => readRubric(bytes),
  handout: (bytes: Uint8Array, { name }: { name: string }) => readHandout(bytes, name),
}
export type FileKind = keyof typeof fileReaders
/** What a reader is told besides the bytes. */
export type FileOptions<K extends FileKind> =
  Parameters<(typeof fileReaders)[K]> extends [Uint8Array, infer Options]
    ? Options
    : Record<string, never>
export type FileReading<K extends FileKind> = Awaited<ReturnType<(typeof fileReaders)[K]>>

/** What a thread is asked. */
export interface FileQuestion<K extends FileKind = FileKind> {
  id: number
  kind: K
  bytes: Uint8Array
  options: FileOptions<K>
}
/** What it answers; `failed` where a reader threw. */
export interface FileAnswer {
  id: number
  reading?: unknown
  failed?: string
}
