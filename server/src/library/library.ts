import type { Pool } from 'mysql2/promise'
import {
  canonicalJson,
  HouseText,
  isKeptCurrent,
  readDocument,
  TemplateFile,
  type Template,
} from '@wickerframe/core'
import {
  sharedKinds,
  templateListOf,
  type LibraryEntry,
  type LibraryKind,
  type LibraryPut,
  type SharedKind,
} from '@wickerframe/contract'
import {
  anyOf,
  change,
  firstRow,
  inTransaction,
  rowsOf,
  type Database,
  institutionNow,
} from '@wickerframe/storage'
import { recordAudit } from '../audit/audit.ts'
import { instantOfRow } from '../moment.ts'

interface EntryRow {
  kind: LibraryKind
  entry_key: string
  title: string
  revision: number
  document: string
  saved_at: string
  saved_by: string
}

export type StoredEntry = Omit<LibraryEntry, 'templates' | 'courses' | 'coursesOutOfDate'>

const columns = 'kind, entry_key, title, revision, document, saved_at, saved_by'
const entryOf = (row: EntryRow): StoredEntry => ({
  kind: row.kind,
  key: row.entry_key,
  title: row.title,
  revision: Number(row.revision),
  savedAt: instantOfRow(row.saved_at),
  by: row.saved_by,
  document: JSON.parse(row.document) as LibraryPut['document'],
})

export const listLibrary = async (database: Database): Promise<StoredEntry[]> =>
  (
    await rowsOf<EntryRow>(
      database,
      `SELECT ${columns}
       FROM library_entries
       ORDER BY kind, title`,
    )
  ).map(entryOf)

const titleOf = (document: LibraryPut['document']): string =>
  'title' in document ? document.title : document.fileName

const insert = async (
  database: Database,
  kind: LibraryKind,
  document: LibraryPut['document'],
  who: string,
): Promise<void> => {
  await change(
    database,
    `INSERT IGNORE INTO library_entries (
       kind, entry_key, title, revision, document, saved_at, saved_by
     )
     VALUES (?, ?, ?, 1, ?, ${institutionNow}, ?)`,
    [kind, document.key, titleOf(document).slice(0, 200), JSON.stringify(document), who],
  )
}

/** What a template brings along that the library does not have yet goes into it. */
export const keepFromTemplate = async (
  database: Database,
  template: Template,
  who: string,
): Promise<void> => {
  for (const kind of sharedKinds)
    for (const document of template[templateListOf[kind]])
      await insert(database, kind, document, who)
}

export type PutOutcome =
  | { state: 'saved'; revision: number }
  | { state: 'taken' }
  | { state: 'stale'; present: StoredEntry }
  | { state: 'rewritten'; number: number }
  | { state: 'not-current' }
  | { state: 'no-such-image'; key: string }

/**
 * Puts something into the library, or corrects it. A revision of a house text that was in force is never rewritten.
 * @param was the revision that was corrected; null for something new
 */
export const putEntry = async (
  pool: Pool,
  { kind, was, document }: LibraryPut,
  who: string,
  inDrafts: (
    database: Database,
    corrected: { kind: SharedKind; document: LibraryPut['document'] },
  ) => Promise<void>,
): Promise<PutOutcome> =>
  inTransaction(pool, async (database): Promise<PutOutcome> => {
    if (kind === 'image-set') {
      const [absent] = await imagesAbsent(database, document.images)
      if (absent !== undefined) return { state: 'no-such-image', key: absent }
    }
    const row = await lockEntry(database, kind, document.key)
    if (!row) {
      await insert(database, kind, document, who)
      await recordAudit(database, {
        who,
        what: 'library entry made',
        subject: `${kind} ${document.key}`,
        to: document,
      })
      return { state: 'saved', revision: 1 }
    }
    if (was === null) return { state: 'taken' }
    const present = entryOf(row)
    if (present.revision !== was) return { state: 'stale', present }
    if (kind === 'house-text') {
      const before = (present.document as HouseText).revisions
      const rewritten = before.find(
        (entry, i) =>
          canonicalJson(entry) !== canonicalJson((document as HouseText).revisions[i] ?? null),
      )
      if (rewritten) return { state: 'rewritten', number: rewritten.number }
    }
    // Pages of courses lead to it: they would lead to nothing.
    if (
      kind === 'file' &&
      isKeptCurrent(present.document as TemplateFile) &&
      !isKeptCurrent(document as TemplateFile)
    )
      return { state: 'not-current' }
    await correctEntry(database, kind, document, who)
    await recordAudit(database, {
      who,
      what: 'library entry corrected',
      subject: `${kind} ${document.key}`,
      from: present.document,
      to: document,
    })
    if (kind !== 'house-text' && kind !== 'image-set') await inDrafts(database, { kind, document })
    return { state: 'saved', revision: was + 1 }
  })

/** Those of some keys under which the library has no image. */
const imagesAbsent = async (database: Database, keys: readonly string[]): Promise<string[]> => {
  const asked = anyOf(keys)
  const there = await rowsOf<{ entry_key: string }>(
    database,
    `SELECT entry_key
     FROM library_entries
     WHERE kind = 'image' AND entry_key IN ${asked.sql}`,
    asked.values,
  )
  const held = new Set(there.map((row) => row.entry_key))
  return keys.filter((key) => !held.has(key))
}

const lockEntry = (database: Database, kind: LibraryPut['kind'], key: string) =>
  firstRow<EntryRow>(
    database,
    `SELECT ${columns}
     FROM library_entries
     WHERE kind = ? AND entry_key = ?
     FOR UPDATE`,
    [kind, key],
  )
const correctEntry = (
  database: Database,
  kind: LibraryPut['kind'],
  document: LibraryPut['document'],
  who: string,
) =>
  change(
    database,
    `UPDATE library_entries
     SET title = ?, revision = revision + 1, document = ?, saved_at = ${institutionNow},
       saved_by = ?
     WHERE kind = ? AND entry_key = ?`,
    [titleOf(document).slice(0, 200), JSON.stringify(document), who, kind, document.key],
  )

/** SQL of a short text that changes whenever the wording of a house text does, or a file is kept current from now on. */
export const wordingStamp = `(
    SELECT CONCAT(
      SUM(kind = 'house-text'), ':', SUM(IF(kind = 'house-text', revision, 0)), ':',
      SUM(COALESCE(JSON_VALUE(document, '$.current'), 0))
    )
    FROM library_entries
    WHERE kind IN ('house-text', 'file')
  )`

/** House texts of the library, by key. */
export const houseTextsInForce = async (database: Database): Promise<Map<string, HouseText>> => {
  const rows = await rowsOf<{ entry_key: string; document: string }>(
    database,
    `SELECT entry_key, document
     FROM library_entries
     WHERE kind = 'house-text'`,
  )
  return new Map(
    rows.map((row) => {
      const read = readDocument(HouseText, JSON.parse(row.document))
      if (!read.ok)
        throw new Error(
          `house text ${row.entry_key} is stored in a form that cannot be read: ${JSON.stringify(read.problems[0])}`,
        )
      return [row.entry_key, read.value]
    }),
  )
}

/** The newest of a file that the library keeps current for all courses; null where there is none. */
export const houseFile = async (database: Database, key: string): Promise<TemplateFile | null> => {
  const row = await firstRow<{ document: string }>(
    database,
    `SELECT document
     FROM library_entries
     WHERE kind = 'file' AND entry_key = ?`,
    [key],
  )
  const read = row ? readDocument(TemplateFile, JSON.parse(row.document)) : null
  return read?.ok && isKeptCurrent(read.value) ? read.value : null
}

/** Keys of the files that the library keeps current for all courses. */
const filesKeptCurrent = async (database: Database): Promise<ReadonlySet<string>> =>
  new Set(
    (
      await rowsOf<{ entry_key: string }>(
        database,
        `SELECT entry_key
         FROM library_entries
         WHERE kind = 'file' AND JSON_VALUE(document, '$.current')`,
      )
    ).map((row) => row.entry_key),
  )

/**
 * A template whose pages lead to the newest of just those files that the library keeps current: one that came from elsewhere may say so
 * of others.
 */
export const withFilesKeptCurrent = async (
  database: Database,
  template: Template,
): Promise<Template> => {
  if (!template.files.some(isKeptCurrent)) return template
  const current = await filesKeptCurrent(database)
  return {
    ...template,
    files: template.files.map((file) => {
      if (!isKeptCurrent(file) || current.has(file.key)) return file
      const { current: _, ...others } = file
      return others
    }),
  }
}

/** A template with the library's revisions of its house texts: a version names a text, the library what it says on a date. */
export const withHouseTexts = (
  template: Template,
  inForce: ReadonlyMap<string, HouseText>,
): Template => {
  if (
    !template.houseTexts.some(
      (text) => (inForce.get(text.key)?.revisions.length ?? 0) > text.revisions.length,
    )
  )
    return template
  return {
    ...template,
    houseTexts: template.houseTexts.map((text) =>
      (inForce.get(text.key)?.revisions.length ?? 0) > text.revisions.length
        ? (inForce.get(text.key) ?? text)
        : text,
    ),
  }
}
