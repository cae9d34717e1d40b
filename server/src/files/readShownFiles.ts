import type { Pool } from 'mysql2/promise'
import {
  everyCourseItem,
  kindOfFileName,
  modulesIn,
  restrictedFiles,
  type Course,
  type CourseModule,
  type ShownFile,
} from '@wickerframe/core'
import type { Connector } from '../connector/client.ts'
import { fileReadings, keepReading } from './fileReadings.ts'
import { formItems } from './formItems.ts'
import { FileGivenUp, type FileThreads } from './fileThreads.ts'

/** Kinds of files whose text can be read. */
const readable: ReadonlySet<string | null> = new Set(['docx', 'odt', 'pdf', 'txt', 'csv', 'vtt'])
/** So many are fetched when a course is read; the others the next time. */
const mostFetched = 10

/** What reading takes. */
interface Reading {
  pool: Pool
  connector: Connector
  files: FileThreads
}

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

/** A file that an item shows, or its page leads to, and whose text may be read. */
interface Readable {
  item: string
  content: string
  name: string
}

/** What may be read of what a course shows: nothing that is for staff, and nothing that is kept from students. */
const readableFiles = (course: Course): Readable[] => {
  const staff = staffModules(course)
  const restricted = restrictedFiles(course)
  const at = new Map(
    (course.files ?? []).flatMap(({ url, name, content }) =>
      content === undefined ? [] : [[url, { name, content }] as const],
    ),
  )
  const ledTo = (html: string): ShownFile[] =>
    at.size === 0
      ? []
      : [...html.matchAll(/href="([^"]+)"/g)].flatMap(([, url = '']) => at.get(url) ?? [])
  return everyCourseItem(course).flatMap(({ item, module }): Readable[] =>
    item.staffOnly || (module && staff.has(module.id))
      ? []
      : [...(item.file ? [item.file] : []), ...ledTo(item.html ?? '')]
          .filter(
            (file) =>
              !restricted.shownBy({ url: item.url, target: item.target, file }) &&
              readable.has(kindOfFileName(file.name)),
          )
          .map((file) => ({ item: item.id, ...file })),
  )
}

/** Fetches files whose text is wanted and not known yet, and reads them in a thread. */
const readMissing = async (
  course: string,
  missing: readonly Readable[],
  texts: Map<string, string | null>,
  { pool, connector, files }: Reading,
): Promise<void> => {
  const forms = missing.length > 0 ? await formItems(pool, course) : null
  if (!forms) return
  const wanted = missing.filter(({ item }) => forms.ids === null || forms.ids.has(item))
  for (const { content, name } of wanted.slice(0, mostFetched)) {
    if (texts.has(content)) continue
    const read = await connector.readContent(course, content)
    if (read.state !== 'answered') continue
    const words = await textOf(files, read.value, name)
    // What is not read for now is read the next time.
    if (words === undefined) continue
    await keepReading(pool, content, words)
    texts.set(content, words)
  }
}

/**
 * A course with the texts of the files that its items show, as far as they are known, or a check asks for them: those are fetched from
 * the platform. What a platform says of texts itself is not taken.
 */
const withTexts = async (course: Course, reading: Reading): Promise<Course> => {
  // Where it does not tell which files it holds, none are taken for told.
  if (!course.files) return course
  const shown = readableFiles(course)
  if (shown.length === 0 && course.files.every(({ words }) => words === undefined)) return course
  const texts = await fileReadings(
    reading.pool,
    shown.map(({ content }) => content),
  )
  const missing = shown.filter(({ content }) => !texts.has(content))
  await readMissing(course.id, missing, texts, reading)
  return {
    ...course,
    files: course.files.map((told) => {
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
      ? { ...answer, value: await withTexts(answer.value, { pool, connector, files }) }
      : answer
  },
})
