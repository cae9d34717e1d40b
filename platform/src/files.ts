import busboy from 'busboy'
import type { Request } from 'express'
import type { Pool } from 'mysql2/promise'
import {
  everyCourseItem,
  fileNameFor,
  filesOfChange,
  type Change,
  type Course,
  type CourseFile,
  type CourseItem,
  type ShownFile,
} from '@wickerframe/core'
import { bytesKept, keepContent, type Database } from '@wickerframe/storage'

/** What a course shows or holds under an address of its own: files of its items, and others that were put into it. */
export const filesOf = (course: Course): CourseFile[] => {
  const shown = everyCourseItem(course).flatMap(({ item }): CourseFile[] =>
    item.file
      ? [
          {
            id: `shown-${item.id}`,
            name: item.file.name,
            url: fileAddress(course.id, item.file),
            restricted: false,
            content: item.file.content,
          },
        ]
      : [],
  )
  const others = new Map<string, CourseFile>()
  for (const { item } of everyCourseItem(course))
    for (const file of ledTo(course.id, item)) others.set(file.url, file)
  for (const { url } of shown) others.delete(url)
  return [...(course.files ?? []), ...shown, ...others.values()]
}

/** The files that the page or the questions of an item lead to at addresses of its course. */
const ledTo = (course: string, { html, questions = [] }: CourseItem): CourseFile[] => {
  const own = `href="/courses/${encodeURIComponent(course)}/files/`
  return [html ?? '', ...questions.map(({ body }) => body.text)]
    .filter((text) => text.includes(own))
    .flatMap((text) =>
      [...text.matchAll(/href="(\/courses\/[^"/]+\/files\/([0-9a-f]{64})\/([^"/?#]+))"/g)].flatMap(
        ([attribute, url = '', content = '', name = '']): CourseFile[] =>
          attribute.startsWith(own)
            ? [
                {
                  id: `led-${content.slice(0, 40)}`,
                  name: nameIn(name),
                  url,
                  restricted: false,
                  content,
                },
              ]
            : [],
      ),
    )
}

const nameIn = (encoded: string): string => {
  try {
    return decodeURIComponent(encoded)
  } catch {
    return encoded
  }
}

export const fileAddress = (course: string, { name, content }: ShownFile): string =>
  `/courses/${encodeURIComponent(course)}/files/${content}/${encodeURIComponent(name)}`

/** A file of a course by what it holds, under the name it has there; null where the course has none. */
export const fileIn = (course: Course, content: string): { name: string } | null =>
  filesOf(course).find((file) => file.content === content) ?? null

/** The first file that changes speak of and that is not held here; null where all are. */
export const fileNotHeld = async (
  database: Database,
  changes: readonly Change[],
): Promise<string | null> => {
  for (const file of changes.flatMap(filesOfChange))
    if (file.fields || (await bytesKept(database, file.content)) === null) return file.name
  return null
}

export type Uploaded = { file: ShownFile } | { refused: string }

/** Takes the file of a form (multipart/form-data, RFC 7578) as it comes. */
export const uploaded = (pool: Pool, request: Request, mostBytes: number): Promise<Uploaded> =>
  new Promise((resolve, reject) => {
    const nothing: Uploaded = { refused: 'A file is wanted.' }
    let taken: Promise<Uploaded> | null = null
    const parts = busboy({ headers: request.headers, limits: { files: 1, fields: 10 } })
    parts.on('file', (_, stream, { filename }) => {
      const name = fileNameFor(Buffer.from(filename ?? '', 'latin1').toString('utf8'))
      if (name === null) {
        stream.resume()
        taken = Promise.resolve({ refused: 'That kind of file is not taken.' })
        return
      }
      taken = keepContent(pool, stream, mostBytes).then((kept): Uploaded => {
        stream.resume()
        return kept.state === 'kept'
          ? { file: { name, content: kept.content } }
          : { refused: kept.state === 'empty' ? 'The file is empty.' : 'The file is too large.' }
      })
      taken.catch(reject)
    })
    parts.on('error', reject)
    parts.on('close', () => void (taken ?? Promise.resolve(nothing)).then(resolve, reject))
    request.pipe(parts)
  })
