import type { Pool } from 'mysql2/promise'
import {
  everyCourseItem,
  kindOfFileName,
  modulesIn,
  type Course,
  type CourseModule,
} from '@wickerframe/core'
import type { Connector } from '../connector/client.ts'
import { fileReadings, keepReading } from './fileReadings.ts'
import { FileGivenUp, type FileThreads } from './fileThreads.ts'

/** Kinds of files whose text can be read. */
const readable: ReadonlySet<string | null> = new Set(['docx', 'odt', 'txt', 'csv', 'vtt'])
/** So many are fetched when a course is read; the others the next time. */
const mostFetched = 10

/** Ids of modules for staff, with those in them. */
const staffModules = (course: Course): ReadonlySet<string> => {
  const found = new Set<string>()
  const visit = (module: CourseModule, kept: boolean): void => {
    const isKept = kept || module.staffOnly
    if (isKept) found.add(module.id)
    for (const inner of modulesIn(module)) visit(inner, isKept)
  }
  for (const module of course.modules) visit(module, false)
  return found
}

/** What may be read of what a course shows: nothing that is for staff, and nothing that is kept from students. */
const toRead = (course: Course): ReadonlyMap<string, string> => {
  const staff = staffModules(course)
  const kept = new Set(
    (course.files ?? []).flatMap(({ restricted, content }) => (restricted ? [content] : [])),
  )
  return new Map(
    everyCourseItem(course).flatMap(({ item, module }): [string, string][] =>
      item.file &&
      !item.staffOnly &&
      !(module && staff.has(module.id)) &&
      !kept.has(item.file.content) &&
      readable.has(kindOfFileName(item.file.name))
        ? [[item.file.content, item.file.name]]
        : [],
    ),
  )
}

/**
 * A course with the texts of the files that its items show, as far as they can be read: those that are known are the database's, others
 * are fetched from the platform and read in a thread. What a platform says of texts itself is not taken.
 */
const withTexts = async (
  course: Course,
  pool: Pool,
  connector: Connector,
  files: FileThreads,
): Promise<Course> => {
  const wanted = toRead(course)
  if (wanted.size === 0 && (course.files ?? []).every(({ words }) => words === undefined))
    return course
  const texts = await fileReadings(pool, [...wanted.keys()])
  let fetched = 0
  for (const [content, name] of wanted) {
    if (texts.has(content) || fetched >= mostFetched) continue
    fetched += 1
    const read = await connector.readContent(course.id, content)
    if (read.state !== 'answered') continue
    const words = await textOf(files, read.value, name)
    // What is not read for now is read the next time.
    if (words === undefined) continue
    await keepReading(pool, content, words)
    texts.set(content, words)
  }
  return {
    ...course,
    files: (course.files ?? []).map((told) => {
      const { words: untrusted, ...file } = told
      const words = file.content === undefined ? null : (texts.get(file.content) ?? null)
      return words === null ? (untrusted === undefined ? told : file) : { ...file, words }
    }),
  }
}

/** The text of a file; null where it has none that can be read; undefined where it cannot be read for now. */
const textOf = async (
  files: FileThreads,
  bytes: Buffer,
  name: string,
): Promise<string | null | undefined> => {
  try {
    const read = await files.read('handout', bytes, { name })
    return read.ok ? read.value.words : null
  } catch (cause) {
    if (cause instanceof FileGivenUp) return cause.isForNow ? undefined : null
    throw cause
  }
}

/** A platform whose courses are read with the texts of the files that they show. */
export const readingFiles = (connector: Connector, pool: Pool, files: FileThreads): Connector => ({
  ...connector,
  snapshot: async (id) => {
    const answer = await connector.snapshot(id)
    return answer.state === 'answered'
      ? { ...answer, value: await withTexts(answer.value, pool, connector, files) }
      : answer
  },
})
