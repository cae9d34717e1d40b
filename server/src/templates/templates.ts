import type { Pool } from 'mysql2/promise'
import {
  applyEdit,
  compareTemplates,
  policyProblems,
  proofread,
  readDocument,
  refusedIn,
  takeOver,
  Template,
  weakenings,
  type EditProblem,
  type HouseText,
  type Problem,
  type Remark,
  type TemplateEdit,
} from '@wickerframe/core'
import {
  may,
  type SharedKind,
  templateListOf,
  type LibraryPut,
  type TakenOverDraft,
  type TemplateDraft,
  type TemplateSummary,
  type VersionSummary,
} from '@wickerframe/contract'
import {
  change,
  firstRow,
  inTransaction,
  rowsOf,
  type Database,
  institutionNow,
} from '@wickerframe/storage'
import { digestOf } from '../digest.ts'
import { changesSince } from './changesSince.ts'
import { addCoDesigner, listCoDesigners, removeCoDesigner, tellCoDesigners } from './coDesigners.ts'
import { recordAudit } from '../audit/audit.ts'
import { filesNotKept } from '../files/filesKept.ts'
import { keepForGood } from '../fillIn/answerFiles.ts'
import {
  houseTextsInForce,
  keepFromTemplate,
  withFilesKeptCurrent,
  withHouseTexts,
} from '../library/library.ts'
import { instantOfRow } from '../moment.ts'
import type { Person } from '../people/people.ts'

interface TemplateRow {
  id: number
  template_key: string
  draft: string
  draft_revision: number
  edits_since: number
  saved_at: string
}

export const readStored = (what: string, text: string): Template => {
  const read = readDocument(Template, JSON.parse(text))
  if (!read.ok)
    throw new Error(
      `${what} is stored in a form that cannot be read: ${JSON.stringify(read.problems[0])}`,
    )
  return read.value
}

export const draftOf = (template: Template): Template => {
  const { version: _, ...draft } = template
  return draft
}

export type AddOutcome =
  | { state: 'added' }
  | { state: 'taken' }
  | { state: 'no-upper' }
  | { state: 'weakens'; problems: Problem[] }

/** Brings in a template document as a new draft. One that is built on another must leave what stands above as it is. */
export const addTemplate = async (
  pool: Pool,
  template: Template,
  who: string,
): Promise<AddOutcome> =>
  inTransaction(pool, async (database): Promise<AddOutcome> => {
    if ((await findTemplateId(database, template.key)) !== null) return { state: 'taken' }
    const upper = await upperOf(database, template)
    if (upper === 'gone') return { state: 'no-upper' }
    const problems = upper ? weakenings(upper, template) : []
    if (problems.length > 0) return { state: 'weakens', problems }
    await insertTemplate(database, draftOf(template))
    const added = await findTemplateId(database, template.key)
    if (added !== null) await addCoDesigner(database, added, who)
    await keepFromTemplate(database, template, who)
    await recordAudit(database, { who, what: 'template brought in', subject: template.key })
    return { state: 'added' }
  })

export const findTemplateId = async (database: Database, key: string): Promise<number | null> =>
  (
    await firstRow<{ id: number }>(
      database,
      `SELECT id
       FROM templates
       WHERE template_key = ?`,
      [key],
    )
  )?.id ?? null
const insertTemplate = (database: Database, draft: Template) =>
  change(
    database,
    `INSERT INTO templates (template_key, title, draft, saved_at)
     VALUES (?, ?, ?, ${institutionNow})`,
    [draft.key, draft.title, JSON.stringify(draft)],
  )

/** The released version a layer is built on; null for a template of its own. */
const upperOf = async (
  database: Database,
  template: Template,
): Promise<Template | null | 'gone'> => {
  if (!template.extends) return null
  return (
    (await findVersion(database, template.extends.template, template.extends.version))?.document ??
    'gone'
  )
}

const mayEdit = async (database: Database, id: number, person: Person): Promise<boolean> =>
  may(person, 'edit every draft') ||
  (may(person, 'edit drafts') &&
    (await firstRow(
      database,
      `SELECT 1 AS yes
       FROM template_contributors
       WHERE template_id = ? AND person_id = ?`,
      [id, person.id],
    )) !== null)

const versionRows = (database: Database, templateId: number) =>
  rowsOf<{
    number: number
    released_at: string
    released_by: string
    note: string
    retired: number
    courses: number
  }>(
    database,
    `SELECT template_versions.number, template_versions.released_at, template_versions.released_by,
       template_versions.note, retired_versions.number IS NOT NULL AS retired,
       (
         SELECT COUNT(*)
         FROM courses
         WHERE courses.template_id = template_versions.template_id
           AND courses.version = template_versions.number
       ) AS courses
     FROM template_versions
     LEFT JOIN retired_versions
       ON retired_versions.template_id = template_versions.template_id
       AND retired_versions.number = template_versions.number
     WHERE template_versions.template_id = ?
     ORDER BY template_versions.number DESC`,
    [templateId],
  )
const useRows = (database: Database, templateId: number) =>
  rowsOf<{ number: number; department: string; modality: string }>(
    database,
    `SELECT number, department, modality
     FROM version_uses
     WHERE template_id = ?
     ORDER BY department, modality`,
    [templateId],
  )
const listVersions = async (database: Database, templateId: number): Promise<VersionSummary[]> => {
  const versions = await versionRows(database, templateId)
  const uses = await useRows(database, templateId)
  return versions.map((row) => ({
    number: row.number,
    releasedAt: instantOfRow(row.released_at),
    by: row.released_by,
    note: row.note,
    retired: Number(row.retired) === 1,
    courses: Number(row.courses),
    uses: uses
      .filter((use) => use.number === row.number)
      .map(({ department, modality }) => ({ department, modality })),
  }))
}

const aboveOf = async (database: Database, draft: Template): Promise<TemplateSummary['above']> => {
  if (!draft.extends) return null
  const row = await firstRow<{ title: string; newest: number }>(
    database,
    `SELECT templates.title, MAX(template_versions.number) AS newest
     FROM templates
     JOIN template_versions ON template_versions.template_id = templates.id
     WHERE templates.template_key = ?
     GROUP BY templates.id`,
    [draft.extends.template],
  )
  return (
    row && {
      key: draft.extends.template,
      title: row.title,
      version: draft.extends.version,
      newest: row.newest,
    }
  )
}

const countOpenComments = async (database: Database, templateId: number): Promise<number> =>
  Number(
    (
      await firstRow<{ count: number }>(
        database,
        `SELECT COUNT(*) AS count
         FROM template_comments
         WHERE template_id = ? AND answers_to IS NULL AND closed_at IS NULL`,
        [templateId],
      )
    )?.count,
  )

const changesIn = (
  database: Database,
  { id }: TemplateRow,
  draft: Template,
  edits: number,
): Promise<number> =>
  changesSince(database, id, draft, edits, (number) => findVersionById(database, id, number))

const summaryOf = async (
  database: Database,
  row: TemplateRow,
  draft: Template,
  person: Person,
): Promise<TemplateSummary> => {
  const versions = await listVersions(database, row.id)
  return {
    key: row.template_key,
    title: draft.title,
    summary: draft.summary,
    appliesTo: draft.appliesTo,
    above: await aboveOf(database, draft),
    versions,
    draftRevision: row.draft_revision,
    changesSinceRelease: await changesIn(database, row, draft, row.edits_since),
    courses: versions.reduce((sum, { courses }) => sum + courses, 0),
    openComments: await countOpenComments(database, row.id),
    mayEdit: await mayEdit(database, row.id, person),
    mayRelease: may(person, 'keep templates'),
  }
}

const columns = 'id, template_key, draft, draft_revision, edits_since, saved_at'

export const listTemplates = async (
  database: Database,
  person: Person,
): Promise<TemplateSummary[]> => {
  const rows = await rowsOf<TemplateRow>(
    database,
    `SELECT ${columns}
     FROM templates
     ORDER BY title`,
  )
  return Promise.all(
    rows.map((row) =>
      summaryOf(database, row, readStored(`draft of ${row.template_key}`, row.draft), person),
    ),
  )
}

const draftIn = (row: TemplateRow, inForce: ReadonlyMap<string, HouseText>): Template =>
  withHouseTexts(readStored(`draft of ${row.template_key}`, row.draft), inForce)

const findRow = (database: Database, key: string) =>
  firstRow<TemplateRow>(
    database,
    `SELECT ${columns}
     FROM templates
     WHERE template_key = ?`,
    [key],
  )
const lockRow = (database: Database, key: string) =>
  firstRow<TemplateRow>(
    database,
    `SELECT ${columns}
     FROM templates
     WHERE template_key = ?
     FOR UPDATE`,
    [key],
  )
const listContributors = (database: Database, templateId: number) =>
  rowsOf<{ name: string; email: string }>(
    database,
    `SELECT people.name, people.email
     FROM template_contributors
     JOIN people ON people.id = template_contributors.person_id
     WHERE template_contributors.template_id = ?
     ORDER BY people.name`,
    [templateId],
  )

export const findDraft = async (
  database: Database,
  key: string,
  person: Person,
): Promise<TemplateDraft | null> => {
  const row = await findRow(database, key)
  if (!row) return null
  const draft = draftIn(row, await houseTextsInForce(database))
  const upper = await upperOf(database, draft)
  const contributors = await listContributors(database, row.id)
  const designers = await listCoDesigners(database, row.id)
  return {
    ...(await summaryOf(database, row, draft, person)),
    draft,
    savedAt: instantOfRow(row.saved_at),
    upper: upper === 'gone' ? null : upper,
    contributors,
    designers,
  }
}

/** A draft as the version it would be released as, with the number of that version. */
export const findDraftToRelease = async (
  database: Database,
  key: string,
): Promise<{ templateId: number; revision: number; template: Template } | null> => {
  const row = await findRow(database, key)
  if (!row) return null
  const draft = draftIn(row, await houseTextsInForce(database))
  const last = await findLastVersion(database, row.id)
  return {
    templateId: row.id,
    revision: row.draft_revision,
    template: { ...draft, version: (last?.number ?? 0) + 1 },
  }
}

export const findDraftRevision = async (database: Database, key: string): Promise<number | null> =>
  (
    await firstRow<{ draft_revision: number }>(
      database,
      `SELECT draft_revision
       FROM templates
       WHERE template_key = ?`,
      [key],
    )
  )?.draft_revision ?? null

export interface Version {
  templateId: number
  number: number
  /** Of the document, house texts as they are in force included. */
  digest: string
  document: Template
}

const versionOf = async (
  database: Database,
  row: { template_id: number; number: number; document: string; digest: string },
): Promise<Version> => {
  const stored = readStored(`template ${row.template_id}, version ${row.number}`, row.document)
  const document = await withFilesKeptCurrent(
    database,
    withHouseTexts(stored, await houseTextsInForce(database)),
  )
  return {
    templateId: row.template_id,
    number: row.number,
    digest: document === stored ? row.digest : digestOf(document),
    document,
  }
}

export const findVersion = async (
  database: Database,
  key: string,
  number: number,
): Promise<Version | null> => {
  const row = await firstRow<{
    template_id: number
    number: number
    document: string
    digest: string
  }>(
    database,
    `SELECT template_versions.template_id, template_versions.number, template_versions.document,
       template_versions.digest
     FROM template_versions
     JOIN templates ON templates.id = template_versions.template_id
     WHERE templates.template_key = ? AND template_versions.number = ?`,
    [key, number],
  )
  return row && versionOf(database, row)
}

export const findVersionById = async (
  database: Database,
  templateId: number,
  number: number,
): Promise<Version | null> => {
  const row = await firstRow<{
    template_id: number
    number: number
    document: string
    digest: string
  }>(
    database,
    `SELECT template_id, number, document, digest
     FROM template_versions
     WHERE template_id = ? AND number = ?`,
    [templateId, number],
  )
  return row && versionOf(database, row)
}

export type EditOutcome =
  | {
      state: 'saved'
      revision: number
      savedAt: string
      changesSinceRelease: number
      draft: Template
    }
  | { state: 'missing' | 'not-allowed-to' }
  /** `at` is the place of the edit among those sent. */
  | { state: 'refused'; problem: EditProblem; at: number }
  | { state: 'bad-policy' | 'weakens'; problems: Problem[] }

/** What a draft may not be, whoever edits it: rules set to what they do not know, a layer that weakens what stands above. */
const refusalOf = async (
  database: Database,
  draft: Template,
): Promise<{ state: 'bad-policy' | 'weakens'; problems: Problem[] } | null> => {
  const policies = policyProblems(draft)
  if (policies.length > 0) return { state: 'bad-policy', problems: policies }
  const upper = await upperOf(database, draft)
  const problems = upper && upper !== 'gone' ? weakenings(upper, draft) : []
  return problems.length > 0 ? { state: 'weakens', problems } : null
}

/** What an edit brings that is not let into a course; what stood in the draft before does not keep anybody from their work. */
const broughtIn = (edit: TemplateEdit, after: Template): EditProblem | null => {
  // Most edits hold no HTML at all; only one that may bring something is looked for in the whole draft.
  const texts = JSON.stringify(edit)
  if (!texts.includes('<')) return null
  const [first, ...more] = refusedIn(after).filter(({ path }) => {
    const value = valueAt(after, path)
    return typeof value === 'string' && texts.includes(JSON.stringify(value))
  })
  return first ? { code: 'not-allowed', where: first.found, problems: [first, ...more] } : null
}
/** The value at a JSON Pointer (RFC 6901). */
const valueAt = (document: unknown, pointer: string): unknown =>
  pointer
    .split('/')
    .slice(1)
    .reduce<unknown>(
      (at, step) =>
        at !== null && typeof at === 'object' ? (at as Record<string, unknown>)[step] : undefined,
      document,
    )

const storeDraft = async (
  database: Database,
  row: TemplateRow,
  draft: Template,
  edits: number,
): Promise<number> => {
  await change(
    database,
    `UPDATE templates
     SET draft = ?, title = ?, draft_revision = draft_revision + 1, edits_since = edits_since + ?,
       saved_at = ${institutionNow}
     WHERE id = ?`,
    [JSON.stringify(draft), draft.title, edits, row.id],
  )
  return row.draft_revision + 1
}

/**
 * Makes edits of a draft, all or none. They may be based on an older revision: only an edit of a field that somebody
 * else changed since is refused, with both values.
 */
export const editDraft = async (
  pool: Pool,
  key: string,
  edits: readonly TemplateEdit[],
  person: Person,
): Promise<EditOutcome> =>
  inTransaction(pool, async (database): Promise<EditOutcome> => {
    const row = await lockRow(database, key)
    if (!row) return { state: 'missing' }
    if (!(await mayEdit(database, row.id, person))) return { state: 'not-allowed-to' }
    let draft = draftIn(row, await houseTextsInForce(database))
    for (const [at, edit] of edits.entries()) {
      const next = applyEdit(draft, edit)
      if (!next.ok) return { state: 'refused', problem: next.problems, at }
      const problem = broughtIn(edit, next.value.template)
      if (problem) return { state: 'refused', problem, at }
      draft = next.value.template
    }
    const refusal = await refusalOf(database, draft)
    if (refusal) return refusal
    const revision = await storeDraft(database, row, draft, edits.length)
    await tellCoDesigners(database, row.id, person, {
      subject: `“${draft.title}” is being changed`,
      body: `${person.name} edits its draft.`,
    })
    await recordAudit(database, {
      who: person.email,
      what: 'draft edited',
      subject: key,
      to: edits,
    })
    const saved = await firstRow<{ saved_at: string }>(
      database,
      `SELECT saved_at
       FROM templates
       WHERE id = ?`,
      [row.id],
    )
    const savedAt = instantOfRow(saved?.saved_at ?? row.saved_at)
    const changesSinceRelease = await changesIn(
      database,
      row,
      draft,
      row.edits_since + edits.length,
    )
    return { state: 'saved', revision, savedAt, changesSinceRelease, draft }
  })

export type TakeOverOutcome =
  | { state: 'taken-over'; answer: TakenOverDraft }
  | { state: 'missing' | 'not-allowed-to' | 'no-layer' | 'no-version' }
  | { state: 'stale'; revision: number }
  | { state: 'unusable'; problems: Problem[] }

/** Brings another version of the layer above into a layer's draft, or only says what it would bring. */
export const takeOverUpper = async (
  pool: Pool,
  key: string,
  revision: number,
  version: number,
  dry: boolean,
  person: Person,
): Promise<TakeOverOutcome> =>
  inTransaction(pool, async (database): Promise<TakeOverOutcome> => {
    const row = await lockRow(database, key)
    if (!row) return { state: 'missing' }
    if (!(await mayEdit(database, row.id, person))) return { state: 'not-allowed-to' }
    if (row.draft_revision !== revision) return { state: 'stale', revision: row.draft_revision }
    const draft = draftIn(row, await houseTextsInForce(database))
    const old = await upperOf(database, draft)
    if (!draft.extends || old === null) return { state: 'no-layer' }
    const wanted = await findVersion(database, draft.extends.template, version)
    if (!wanted || old === 'gone') return { state: 'no-version' }
    const taken = takeOver(old, wanted.document, draft)
    const read = readDocument(Template, draftOf(taken.template))
    if (!read.ok) return { state: 'unusable', problems: read.problems }
    const answer = {
      draft: read.value,
      brings: compareTemplates(draft, read.value),
      notes: taken.notes,
    }
    if (dry) return { state: 'taken-over', answer: { ...answer, revision: row.draft_revision } }
    const saved = await storeDraft(database, row, read.value, Math.max(1, answer.brings.length))
    await recordAudit(database, {
      who: person.email,
      what: 'layer above taken over',
      subject: `${key}: ${draft.extends.template} ${version}`,
    })
    return { state: 'taken-over', answer: { ...answer, revision: saved } }
  })

/** Brings a correction of the library into every draft that holds the entry. */
export const correctDrafts = async (
  database: Database,
  { kind, document }: { kind: SharedKind; document: LibraryPut['document'] },
  who: string,
): Promise<void> => {
  const list = templateListOf[kind]
  const rows = await rowsOf<TemplateRow>(
    database,
    `SELECT ${columns}
     FROM templates
     ORDER BY id
     FOR UPDATE`,
  )
  for (const row of rows) {
    const draft = readStored(`draft of ${row.template_key}`, row.draft)
    const upper = await upperOf(database, draft)
    // What a layer shows from above is corrected there, and taken over with its next version.
    if (
      !draft[list].some(({ key }) => key === document.key) ||
      (upper !== null && (upper === 'gone' || upper[list].some(({ key }) => key === document.key)))
    )
      continue
    const corrected = readDocument(Template, {
      ...draft,
      [list]: draft[list].map((entry) => (entry.key === document.key ? document : entry)),
    })
    if (!corrected.ok) continue
    await storeDraft(database, row, corrected.value, 1)
    await recordAudit(database, {
      who,
      what: 'draft corrected from the library',
      subject: `${row.template_key}: ${kind} ${document.key}`,
    })
  }
}

/** Drafts of every template, for telling where something is used. */
export const listDrafts = async (database: Database): Promise<Template[]> =>
  (
    await rowsOf<TemplateRow>(
      database,
      `SELECT ${columns}
       FROM templates
       ORDER BY title`,
    )
  ).map((row) => readStored(`draft of ${row.template_key}`, row.draft))

export type ReleaseOutcome =
  | { state: 'released'; version: number }
  | { state: 'missing' }
  | { state: 'stale'; revision: number }
  | { state: 'nothing-new'; version: number }
  | { state: 'errors'; remarks: Remark[] }
  /** Files that came as a name only: their bytes are to be brought in. */
  | { state: 'files-not-kept'; names: string[] }

/** Releases a draft as the next version. The revision the designer looked at must be the one that is released, and proofreading finds no error in it. */
export const releaseDraft = async (
  pool: Pool,
  key: string,
  revision: number,
  note: string,
  person: Person,
): Promise<ReleaseOutcome> =>
  inTransaction(pool, async (database): Promise<ReleaseOutcome> => {
    const row = await lockRow(database, key)
    if (!row) return { state: 'missing' }
    if (row.draft_revision !== revision) return { state: 'stale', revision: row.draft_revision }
    const last = await findLastVersion(database, row.id)
    const draft = draftIn(row, await houseTextsInForce(database))
    if (
      last &&
      digestOf(draftOf(readStored(`${key}, version ${last.number}`, last.document))) ===
        digestOf(draft)
    )
      return { state: 'nothing-new', version: last.number }
    const notKept = await filesNotKept(database, draft)
    if (notKept.length > 0) return { state: 'files-not-kept', names: notKept }
    const remarks = proofread(draft).filter(({ severity }) => severity === 'error')
    if (remarks.length > 0) return { state: 'errors', remarks }
    // One that came from elsewhere may name what is kept here as an answer alone, and only for a while.
    await keepForGood(
      database,
      draft.files.map(({ content }) => content),
    )
    const number = (last?.number ?? 0) + 1
    const document: Template = { ...draft, version: number }
    await insertVersion(database, row.id, document, number, person.email, note)
    await forgetEditsSince(database, row.id)
    await tellCoDesigners(database, row.id, person, {
      subject: `“${draft.title}” has version ${number}`,
      body: `${person.name}: ${note}`,
    })
    await recordAudit(database, {
      who: person.email,
      what: 'version released',
      subject: `${key} ${number}`,
    })
    return { state: 'released', version: number }
  })

const findLastVersion = (database: Database, templateId: number) =>
  firstRow<{ number: number; document: string }>(
    database,
    `SELECT number, document
     FROM template_versions
     WHERE template_id = ?
     ORDER BY number DESC
     LIMIT 1`,
    [templateId],
  )
const insertVersion = (
  database: Database,
  templateId: number,
  document: Template,
  number: number,
  who: string,
  note: string,
) =>
  change(
    database,
    `INSERT INTO template_versions (
       template_id, number, document, digest, released_at, released_by, note
     )
     VALUES (?, ?, ?, ?, ${institutionNow}, ?, ?)`,
    [templateId, number, JSON.stringify(document), digestOf(document), who, note],
  )
const forgetEditsSince = (database: Database, templateId: number) =>
  change(
    database,
    `UPDATE templates
     SET edits_since = 0
     WHERE id = ?`,
    [templateId],
  )

export const isRetired = async (
  database: Database,
  { templateId, number }: Pick<Version, 'templateId' | 'number'>,
): Promise<boolean> =>
  (await firstRow(
    database,
    `SELECT number
     FROM retired_versions
     WHERE template_id = ? AND number = ?`,
    [templateId, number],
  )) !== null

/** Says for which departments and modalities a version is the one in use; each has one version in use at most. @returns false when it is not there or retired */
export const useVersion = async (
  pool: Pool,
  key: string,
  number: number,
  uses: readonly { department: string; modality: string; inUse: boolean }[],
  who: string,
): Promise<boolean> =>
  inTransaction(pool, async (database) => {
    const version = await findVersion(database, key, number)
    if (!version) return false
    if (uses.some((use) => use.inUse) && (await isRetired(database, version))) return false
    for (const { inUse, ...use } of uses)
      await (inUse ? putInUse(database, version, use, who) : takeFromUse(database, version, use))
    await recordAudit(database, {
      who,
      what: 'version put in use',
      subject: `${key} ${number}`,
      to: uses,
    })
    return true
  })

interface Use {
  department: string
  modality: string
}
const putInUse = (
  database: Database,
  { templateId, number }: Version,
  { department, modality }: Use,
  who: string,
) =>
  change(
    database,
    `INSERT INTO version_uses (department, modality, template_id, number, decided_at, decided_by)
     VALUES (?, ?, ?, ?, ${institutionNow}, ?)
     ON DUPLICATE KEY UPDATE template_id = VALUES(template_id), number = VALUES(number),
       decided_at = VALUES(decided_at), decided_by = VALUES(decided_by)`,
    [department, modality, templateId, number, who],
  )
const takeFromUse = (
  database: Database,
  { templateId, number }: Version,
  { department, modality }: Use,
) =>
  change(
    database,
    `DELETE FROM version_uses
     WHERE department = ? AND modality = ? AND template_id = ? AND number = ?`,
    [department, modality, templateId, number],
  )

/** Retires a version, which is then in use nowhere, or brings it back. Courses under it keep it. */
export const retireVersion = async (
  pool: Pool,
  key: string,
  number: number,
  retired: boolean,
  who: string,
): Promise<boolean> =>
  inTransaction(pool, async (database) => {
    const version = await findVersion(database, key, number)
    if (!version) return false
    if (retired) {
      await markRetired(database, version, who)
      await takeFromEveryUse(database, version)
    } else await bringBack(database, version)
    await recordAudit(database, {
      who,
      what: retired ? 'version retired' : 'version brought back',
      subject: `${key} ${number}`,
    })
    return true
  })

const markRetired = (database: Database, { templateId, number }: Version, who: string) =>
  change(
    database,
    `INSERT IGNORE INTO retired_versions (template_id, number, retired_at, retired_by)
     VALUES (?, ?, ${institutionNow}, ?)`,
    [templateId, number, who],
  )
const takeFromEveryUse = (database: Database, { templateId, number }: Version) =>
  change(
    database,
    `DELETE FROM version_uses
     WHERE template_id = ? AND number = ?`,
    [templateId, number],
  )
const bringBack = (database: Database, { templateId, number }: Version) =>
  change(
    database,
    `DELETE FROM retired_versions
     WHERE template_id = ? AND number = ?`,
    [templateId, number],
  )

/** Lets a designer look after a template with others, or no longer. @returns false when the template or the designer is not there */
export const letLookAfter = async (
  pool: Pool,
  key: string,
  email: string,
  may: boolean,
  who: string,
): Promise<boolean> =>
  inTransaction(pool, async (database) => {
    const template = await findTemplateId(database, key)
    if (template === null) return false
    const done = may
      ? await addCoDesigner(database, template, email)
      : await removeCoDesigner(database, template, email)
    if (done)
      await recordAudit(database, {
        who,
        what: may ? 'designer added to a template' : 'designer taken from a template',
        subject: key,
        to: email,
      })
    return done
  })

/** Lets somebody contribute to a template, or no longer. @returns false when the template or the contributor is not there */
export const letContribute = async (
  pool: Pool,
  key: string,
  email: string,
  may = true,
  who = 'system',
): Promise<boolean> =>
  inTransaction(pool, async (database) => {
    const found = await findContributing(database, key, email)
    if (!found) return false
    await (may ? addContributor(database, found) : removeContributor(database, found))
    await recordAudit(database, {
      who,
      what: may ? 'contributor let in' : 'contributor taken out',
      subject: key,
      to: email,
    })
    return true
  })

interface Contributing {
  template: number
  person: number
}
const findContributing = (database: Database, key: string, email: string) =>
  firstRow<Contributing>(
    database,
    `SELECT templates.id AS template, people.id AS person
     FROM templates
     JOIN people
     JOIN person_roles ON person_roles.person_id = people.id AND person_roles.role = 'contributor'
     WHERE templates.template_key = ? AND people.email = ?`,
    [key, email],
  )
const addContributor = (database: Database, { template, person }: Contributing) =>
  change(
    database,
    `INSERT IGNORE INTO template_contributors (template_id, person_id)
     VALUES (?, ?)`,
    [template, person],
  )
const removeContributor = (database: Database, { template, person }: Contributing) =>
  change(
    database,
    `DELETE FROM template_contributors
     WHERE template_id = ? AND person_id = ?`,
    [template, person],
  )

/** Numbers of a template's versions that are not retired, newest first. */
export const listVersionNumbers = async (database: Database, key: string): Promise<number[]> =>
  (
    await rowsOf<{ number: number }>(
      database,
      `SELECT template_versions.number
       FROM template_versions
       JOIN templates ON templates.id = template_versions.template_id
       WHERE templates.template_key = ?
         AND NOT EXISTS (
           SELECT 1
           FROM retired_versions
           WHERE retired_versions.template_id = template_versions.template_id
             AND retired_versions.number = template_versions.number
         )
       ORDER BY template_versions.number DESC`,
      [key],
    )
  ).map((row) => row.number)
