import { createHash } from 'node:crypto'
import type { Pool } from 'mysql2/promise'
import {
  applyChanges,
  canonicalJson,
  type Change,
  Course,
  type CourseFile,
  type CourseItem,
  everyCourseItem,
  mapCourse,
  readDocument,
  withImages,
} from '@wickerframe/core'
import type { ChangeSet, ChangeSetAnswer, CourseList, KeyFate } from '@wickerframe/contract'
import {
  change,
  databaseErrorCode,
  firstRow,
  inTransaction,
  rowsOf,
  institutionNow,
  type Database,
} from '@wickerframe/storage'
import { fileAddress, fileNotHeld } from './files.ts'
import { rewriteHtml, type Dropped } from './rewriteHtml.ts'

/** Why the platform refuses; `status` is the HTTP status it answers with. */
export interface Refusal {
  status: 404 | 409 | 422
  code: string
  detail: string
}
export type Outcome<T> = { done: T } | { refused: Refusal }
const refuse = (status: Refusal['status'], code: string, detail: string): { refused: Refusal } => ({
  refused: { status, code, detail },
})

export class Courses {
  readonly #pool: Pool
  readonly #now: () => string

  /** @param now the platform's clock, ISO 8601 */
  constructor(pool: Pool, now: () => string) {
    this.#pool = pool
    this.#now = now
  }

  /** Whether a cursor was ever given; one of before this platform was brought back as it stood earlier was not. */
  async gaveCursor(cursor: number): Promise<boolean> {
    return cursor === 0 || cursor < (await nextOfCounter(this.#pool, 'cursor'))
  }

  async list(after: number, most: number): Promise<CourseList> {
    const rows = await rowsOf<{
      id: string
      name: string
      status: string
      revision: number
      change_cursor: number
    }>(
      this.#pool,
      `SELECT id, name, status, revision, change_cursor
       FROM courses
       WHERE change_cursor > ?
       ORDER BY change_cursor
       LIMIT ?`,
      [after, String(most)],
    )
    return {
      courses: rows.map((row) => ({
        id: row.id,
        name: row.name,
        status: row.status,
        revision: String(row.revision),
        cursor: row.change_cursor,
      })),
      cursor: rows.at(-1)?.change_cursor ?? after,
    }
  }

  async create(id: string, name: string): Promise<Course> {
    return inTransaction(this.#pool, async (database) => {
      const there = await this.#read(database, id, false)
      if (there) return there
      const course: Course = {
        schema: 'wickerframe.course/2',
        id,
        name,
        label: '',
        status: 'teaching',
        published: false,
        revision: '1',
        readAt: this.#now(),
        timeZone: 'America/Halifax',
        opensAt: null,
        closesAt: null,
        homePage: null,
        navigation: [],
        modules: [],
        stray: [],
      }
      await change(
        database,
        `INSERT INTO courses (id, name, status, revision, change_cursor, document)
         VALUES (?, ?, ?, 1, ?, ?)`,
        [id, name, course.status, await this.#mint(database, 'cursor'), JSON.stringify(course)],
      )
      return course
    })
  }

  /** Enrols people as teachers of a course. @returns everybody who teaches it; null when there is no such course */
  async enrol(
    id: string,
    people: readonly { email: string; name: string }[],
  ): Promise<{ people: { email: string; name: string }[] } | null> {
    return inTransaction(this.#pool, async (database) => {
      if (!(await this.#read(database, id, true))) return null
      for (const person of people) await enrolOne(database, id, person)
      return { people: await listEnrolled(database, id) }
    })
  }

  async setStatus(id: string, status: Course['status']): Promise<Course | null> {
    return inTransaction(this.#pool, async (database) => {
      const course = await this.#read(database, id, true)
      if (!course) return null
      const written = { ...course, status }
      await change(
        database,
        `UPDATE courses
         SET status = ?, document = ?, change_cursor = ?
         WHERE id = ?`,
        [status, JSON.stringify(written), await this.#mint(database, 'cursor'), id],
      )
      return written
    })
  }

  /** A copy of a course to try something on. Asked for twice under one id, it is made once. */
  async rehearse(id: string, of: string): Promise<Course | null> {
    return inTransaction(this.#pool, async (database) => {
      const there = await this.#read(database, id, false)
      if (there) return there
      const original = await this.#read(database, of, false)
      if (!original) return null
      const addressed = (url: string | null | undefined) =>
        url?.replace(`/courses/${of}/`, `/courses/${id}/`)
      const copy: Course = {
        ...mapCourse(
          original,
          (item) => ({ ...item, url: addressed(item.url) ?? null }),
          (module) => ({ ...module, url: addressed(module.url) }),
        ),
        id,
        name: `Rehearsal of ${original.name}`.slice(0, 300),
        status: 'set-aside',
        published: false,
        revision: '1',
      }
      await change(
        database,
        `INSERT INTO courses (id, name, status, revision, change_cursor, document)
         VALUES (?, ?, ?, 1, ?, ?)`,
        [id, copy.name, copy.status, await this.#mint(database, 'cursor'), JSON.stringify(copy)],
      )
      return copy
    })
  }

  async discard(id: string): Promise<boolean> {
    return (
      id.startsWith('rehearsal-') &&
      (
        await change(
          this.#pool,
          `DELETE FROM courses
           WHERE id = ?`,
          [id],
        )
      ).affected === 1
    )
  }

  async snapshot(id: string): Promise<Course | null> {
    const course = await this.#read(this.#pool, id, false)
    return course && { ...course, readAt: this.#now() }
  }

  /** Applies a change set under its key: all or nothing, and once. */
  async apply(
    id: string,
    key: string,
    set: ChangeSet,
    dropped: Dropped,
  ): Promise<Outcome<ChangeSetAnswer>> {
    const digest = createHash('sha256').update(canonicalJson({ id, set })).digest('hex')
    try {
      return await inTransaction(this.#pool, async (database) => {
        // The key comes before the revision: the same question has the same answer, whatever happened since.
        const known = await lockKey(database, key)
        if (known) return this.#answerOf(known, digest)
        await takeKey(database, key, digest)
        const course = await this.#read(database, id, true)
        if (!course) throw new Refused(refuse(404, 'no-course', `there is no course ${id}`).refused)
        if (course.revision !== set.expectedRevision)
          throw new Refused(
            refuse(
              409,
              'stale-revision',
              `course ${id} is at revision ${course.revision}, not ${set.expectedRevision}; read it again`,
            ).refused,
          )
        const answer = await this.#write(database, course, set.changes, dropped)
        await keepAnswer(database, key, answer)
        await countSet(database, id, set.changes.length)
        return { done: answer }
      })
    } catch (cause) {
      if (cause instanceof Refused) return { refused: cause.refusal }
      if (databaseErrorCode(cause) === 'ER_DUP_ENTRY') return this.apply(id, key, set, dropped)
      if (databaseErrorCode(cause) === 'ER_LOCK_WAIT_TIMEOUT')
        return refuse(409, 'still-working', 'the key is still at work; ask again')
      throw cause
    }
  }

  /** An edit on the platform's own pages, by whoever teaches there. */
  async edit(
    id: string,
    changes: readonly Change[],
    dropped: Dropped,
  ): Promise<Outcome<ChangeSetAnswer>> {
    try {
      return await inTransaction(this.#pool, async (database) => {
        const course = await this.#read(database, id, true)
        if (!course) throw new Refused(refuse(404, 'no-course', `there is no course ${id}`).refused)
        return { done: await this.#write(database, course, changes, dropped) }
      })
    } catch (cause) {
      if (cause instanceof Refused) return { refused: cause.refusal }
      throw cause
    }
  }

  /** Changes the files that a course holds beside those its items show. */
  async changeFiles(
    id: string,
    changed: (files: readonly CourseFile[]) => CourseFile[],
  ): Promise<void> {
    await inTransaction(this.#pool, async (database) => {
      const course = await this.#read(database, id, true)
      if (!course) return
      const written: Course = {
        ...course,
        files: changed(course.files ?? []),
        revision: this.#nextRevision(course),
      }
      await change(
        database,
        `UPDATE courses
         SET revision = ?, change_cursor = ?, document = ?
         WHERE id = ?`,
        [
          Number(written.revision),
          await this.#mint(database, 'cursor'),
          JSON.stringify(written),
          id,
        ],
      )
    })
  }

  /** A student hands something in. It does not change the course's content revision. */
  async handIn(id: string, item: string): Promise<void> {
    await inTransaction(this.#pool, async (database) => {
      const course = await this.#read(database, id, true)
      const found = course && everyCourseItem(course).find((placed) => placed.item.id === item)
      if (!course || !found) return
      found.item.studentWork = true
      await change(
        database,
        `UPDATE courses
         SET document = ?
         WHERE id = ?`,
        [JSON.stringify(course), id],
      )
    })
  }

  async fate(key: string): Promise<KeyFate> {
    const known = await firstRow<{ state: string; answer: string }>(
      this.#pool,
      `SELECT state, answer
       FROM idempotency_keys
       WHERE idempotency_key = ?`,
      [key],
    )
    if (!known) return { state: 'unknown' }
    return known.state === 'voided'
      ? { state: 'voided' }
      : { state: 'applied', answer: JSON.parse(known.answer) as ChangeSetAnswer }
  }

  async voidKey(key: string): Promise<KeyFate> {
    await change(
      this.#pool,
      `INSERT IGNORE INTO idempotency_keys (idempotency_key, state, created_at)
       VALUES (?, 'voided', ${institutionNow})`,
      [key],
    )
    return this.fate(key)
  }

  #answerOf(
    known: { state: string; digest: string; answer: string },
    digest: string,
  ): Outcome<ChangeSetAnswer> {
    if (known.state === 'voided') return refuse(409, 'voided', 'the key was voided')
    if (known.digest !== digest)
      return refuse(422, 'other-payload', 'the key was used with another payload')
    return { done: JSON.parse(known.answer) as ChangeSetAnswer }
  }

  async #read(database: Database, id: string, lock: boolean): Promise<Course | null> {
    const row = await firstRow<{ document: string; revision: number }>(
      database,
      `SELECT document, revision
       FROM courses
       WHERE id = ?${lock ? ' FOR UPDATE' : ''}`,
      [id],
    )
    if (!row) return null
    const course = readDocument(Course, JSON.parse(row.document))
    if (!course.ok)
      throw new Error(
        `course ${id} is stored in a form that cannot be read: ${JSON.stringify(course.problems[0])}`,
      )
    return { ...mapCourse(course.value, withAll), revision: String(row.revision) }
  }

  async #write(
    database: Database,
    course: Course,
    changes: readonly Change[],
    dropped: Dropped,
  ): Promise<ChangeSetAnswer> {
    const missing = await fileNotHeld(database, changes)
    if (missing !== null)
      throw new Refused(
        refuse(409, 'no-content', `the bytes of “${missing}” are not held here; put them first`)
          .refused,
      )
    const wanted = idsWanted(course, changes)
    let next = wanted > 0 ? await this.#mint(database, 'id', wanted) : 0
    const applied = applyChanges(course, changes, {
      newId: (kind) => `${kind.charAt(0)}${next++}`,
      urlOf: (id) => `/courses/${course.id}/${id.startsWith('m') ? 'modules' : 'items'}/${id}`,
      urlOfFile: (file) => fileAddress(course.id, file),
      rewriteHtml: (html) =>
        rewriteHtml(
          withImages(html, (name) => `/files/${name}`),
          dropped,
        ),
    })
    if (!applied.ok)
      throw new Refused(refuse(409, applied.problems.code, applied.problems.message).refused)
    const written: Course = {
      ...applied.value.course,
      revision: this.#nextRevision(course),
      readAt: this.#now(),
    }
    await change(
      database,
      `UPDATE courses
       SET name = ?, status = ?, revision = ?, change_cursor = ?, document = ?
       WHERE id = ?`,
      [
        written.name,
        written.status,
        Number(written.revision),
        await this.#mint(database, 'cursor'),
        JSON.stringify(written),
        course.id,
      ],
    )
    return { revision: written.revision, ids: applied.value.ids, course: written }
  }

  /** By the clock, so that none comes twice when the database is brought back from a copy of itself. */
  #nextRevision({ revision }: Course): string {
    return String(Math.max(Number(revision) + 1, Date.parse(this.#now())))
  }

  /** The first of so many new numbers; the row's lock makes cursors come out in the order of their commits. */
  async #mint(database: Database, name: 'id' | 'cursor', count = 1): Promise<number> {
    await ensureCounter(database, name)
    const next = await lockCounter(database, name)
    await raiseCounter(database, name, count)
    return next
  }
}

/** An assessment always has questions here, and a file part a file, if only none. */
const withAll = (item: CourseItem): CourseItem =>
  item.kind === 'assessment'
    ? { ...item, questions: item.questions ?? [] }
    : item.kind === 'file'
      ? { ...item, file: item.file ?? null }
      : item

/** How many ids a change set takes at most: for what it makes, its questions, and those of copies. */
const idsWanted = (course: Course, changes: readonly Change[]): number => {
  const held = everyCourseItem(course).reduce(
    (sum, { item }) => sum + (item.questions?.length ?? 0),
    0,
  )
  return changes.reduce((sum, change) => {
    const made = 'clientId' in change ? 1 : 0
    const copied = change.change === 'duplicate-item' ? held : 0
    const order =
      change.change === 'create-item' || change.change === 'set-item'
        ? (change.fields.questions?.order ?? [])
        : []
    return sum + made + copied + order.filter((one) => 'clientId' in one).length
  }, 0)
}

interface Teacher {
  email: string
  name: string
}
const enrolOne = (database: Database, course: string, { email, name }: Teacher) =>
  change(
    database,
    `INSERT INTO enrolments (course_id, email, name)
     VALUES (?, ?, ?)
     ON DUPLICATE KEY UPDATE name = VALUES(name)`,
    [course, email, name],
  )
const listEnrolled = (database: Database, course: string): Promise<Teacher[]> =>
  rowsOf(
    database,
    `SELECT email, name
     FROM enrolments
     WHERE course_id = ?
     ORDER BY email`,
    [course],
  )

const lockKey = (database: Database, key: string) =>
  firstRow<{ state: string; digest: string; answer: string }>(
    database,
    `SELECT state, digest, answer
     FROM idempotency_keys
     WHERE idempotency_key = ?
     FOR UPDATE`,
    [key],
  )
const takeKey = (database: Database, key: string, digest: string) =>
  change(
    database,
    `INSERT INTO idempotency_keys (idempotency_key, state, digest, created_at)
     VALUES (?, 'applied', ?, ${institutionNow})`,
    [key, digest],
  )
const keepAnswer = (database: Database, key: string, answer: ChangeSetAnswer) =>
  change(
    database,
    `UPDATE idempotency_keys
     SET answer = ?
     WHERE idempotency_key = ?`,
    [JSON.stringify(answer), key],
  )
const countSet = (database: Database, course: string, changes: number) =>
  change(
    database,
    `UPDATE courses
     SET applied_sets = applied_sets + 1, applied_changes = applied_changes + ?
     WHERE id = ?`,
    [changes, course],
  )

const ensureCounter = (database: Database, name: string) =>
  change(
    database,
    `INSERT INTO counters (name, next)
     VALUES (?, 40001)
     ON DUPLICATE KEY UPDATE next = next`,
    [name],
  )
const nextOfCounter = async (database: Database, name: string): Promise<number> =>
  (
    await firstRow<{ next: number }>(
      database,
      `SELECT next
       FROM counters
       WHERE name = ?`,
      [name],
    )
  )?.next ?? 1
const lockCounter = async (database: Database, name: string): Promise<number> =>
  Number(
    (
      await firstRow<{ next: number }>(
        database,
        `SELECT next
         FROM counters
         WHERE name = ?
         FOR UPDATE`,
        [name],
      )
    )?.next,
  )
const raiseCounter = (database: Database, name: string, count: number) =>
  change(
    database,
    `UPDATE counters
     SET next = next + ?
     WHERE name = ?`,
    [count, name],
  )

class Refused extends Error {
  readonly refusal: Refusal
  constructor(refusal: Refusal) {
    super(refusal.detail)
    this.refusal = refusal
  }
}
