import { type libraryRoutes, templateListOf } from '@wickerframe/contract'
import type { HandlersOf } from '../http/handler.ts'
import type { Pool } from 'mysql2/promise'
import {
  canonicalJson,
  escapeHtml,
  everyItem,
  findingFingerprint,
  grouped,
  isKeptCurrent,
  revisionInForce,
  type Template,
  type TemplateFile,
} from '@wickerframe/core'
import { listChecks } from '../checks/checkDigests.ts'
import { listCourses } from '../courses/courses.ts'
import { houseTextsInForce, listLibrary, putEntry, type StoredEntry } from './library.ts'
import { correctDrafts, findVersionById, listDrafts } from '../templates/templates.ts'
import { fileOf } from '../http/fileOf.ts'
import { mustBeLetIn } from '../http/letIn.ts'
import { HttpProblem } from '../http/problem.ts'
import { bytesKept } from '@wickerframe/storage'
import { pageDocument } from '../http/safeHtml.ts'

/** A house text as anybody reads it: a page with the words in force today; null when there is none. */
export const houseTextPage = async (
  pool: Pool,
  key: string,
  today: string,
  platformUrl: string,
): Promise<string | null> => {
  const text = (await houseTextsInForce(pool)).get(key)
  const revision = text ? revisionInForce(text, today) : null
  return text && revision
    ? pageDocument(text.title, `<h1>${escapeHtml(text.title)}</h1>${revision.html}`, platformUrl)
    : null
}

const sumOf = (numbers: readonly number[]): number => numbers.reduce((sum, one) => sum + one, 0)

/** Whether what a version holds of an entry is only led to, where the newest is kept. */
const isCurrentAtOnce = ({ kind, key, document }: StoredEntry, held: Template): boolean =>
  kind === 'file' &&
  isKeptCurrent(document as TemplateFile) &&
  held.files.some((file) => file.key === key && isKeptCurrent(file)) &&
  !everyItem(held).some(({ file }) => file?.key === key)

export const libraryHandlers: HandlersOf<typeof libraryRoutes> = {
  listLibrary: async ({ pool, today }) => {
    const [entries, drafts, courses, checks] = await Promise.all([
      listLibrary(pool),
      listDrafts(pool),
      listCourses(pool, 'system', today),
      listChecks(pool, today),
    ])
    const heldTo: { document: Template; ids: number[] }[] = []
    for (const of of grouped(courses, (one) => `${one.templateId}/${one.version}`).values()) {
      const [first] = of
      if (!first || first.templateId === null || first.version === null) continue
      const found = await findVersionById(pool, first.templateId, first.version)
      if (found) heldTo.push({ document: found.document, ids: of.map(({ summary }) => summary.id) })
    }
    return entries.map((entry) => {
      // No template holds a set.
      if (entry.kind === 'image-set')
        return { ...entry, templates: [], courses: 0, coursesOutOfDate: 0 }
      const list = templateListOf[entry.kind]
      const templates = drafts.flatMap((draft) => {
        const held = draft[list].find(({ key }) => key === entry.key)
        return held
          ? [
              {
                key: draft.key,
                title: draft.title,
                current:
                  entry.kind === 'house-text' ||
                  canonicalJson(held) === canonicalJson(entry.document),
              },
            ]
          : []
      })
      const holding = heldTo.filter(({ document }) =>
        document[list].some(({ key }) => key === entry.key),
      )
      const fingerprint = findingFingerprint('house-text-outdated', `house-text/${entry.key}`)
      const outOfDate = holding.map(({ document, ids }) =>
        entry.kind === 'house-text'
          ? ids.filter((id) => checks.get(id)?.found.includes(fingerprint)).length
          : isCurrentAtOnce(entry, document) ||
              document[list].some((held) => canonicalJson(held) === canonicalJson(entry.document))
            ? 0
            : ids.length,
      )
      return {
        ...entry,
        templates,
        courses: sumOf(holding.map(({ ids }) => ids.length)),
        coursesOutOfDate: sumOf(outOfDate),
      }
    })
  },
  putIntoLibrary: async ({ pool, person, body }) => {
    const put = body
    mustBeLetIn(put.document)
    if (put.kind === 'file' && (await bytesKept(pool, put.document.content)) !== put.document.bytes)
      throw new HttpProblem(
        400,
        'unusable-input',
        `the bytes of “${put.document.fileName}” are not here; bring the file in again`,
      )
    const outcome = await putEntry(pool, put, person.email, (database, corrected) =>
      correctDrafts(database, corrected, person.email),
    )
    switch (outcome.state) {
      case 'saved':
        return { revision: outcome.revision }
      case 'taken':
        throw new HttpProblem(
          409,
          'taken',
          `there is one with the key ${put.document.key} already; give this one another name`,
        )
      case 'stale':
        throw new HttpProblem(
          409,
          'stale',
          `${outcome.present.by} corrected it meanwhile; what you wrote is still here, look at theirs before you save`,
          {
            clash: {
              code: 'clash',
              where: put.document.key,
              present: outcome.present.document,
              wanted: put.document,
            },
          },
        )
      case 'not-current':
        throw new HttpProblem(
          409,
          'kept-current',
          'pages of courses lead to the newest of this file: it stays so, and has no fields to be filled; bring in another file for what is filled for each course',
        )
      case 'no-such-image':
        throw new HttpProblem(
          400,
          'unusable-input',
          `the library has no image with the key ${outcome.key}; put it in first, or leave it out of the set`,
        )
      case 'rewritten':
        throw new HttpProblem(
          409,
          'rewritten',
          `revision ${outcome.number} stands in courses and is not rewritten; add a revision`,
        )
    }
  },
  readRubricFile: async (handling) => {
    const read = await fileOf(handling, 'rubric', {}, 'the rubric file as the body, as text/csv')
    if (read.ok) return { criteria: read.value }
    const [first] = read.problems
    throw new HttpProblem(
      400,
      'unusable-input',
      `line ${first?.line}: found ${first?.found || 'nothing'}; expected ${first?.reason}`,
    )
  },
}
