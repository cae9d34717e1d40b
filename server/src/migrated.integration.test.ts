import { cpSync, mkdtempSync, readdirSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect, it } from 'vitest'
import { migrate } from '@wickerframe/storage'
import { startFreshSchema } from '@wickerframe/storage/testing'
import { exampleFacts } from '@wickerframe/core/testing'
import { listCourses } from './courses/courses.ts'
import { migrationsFolder } from './migrationsFolder.ts'
import { putTerm } from './terms/terms.ts'

it('a college of before courses had owners keeps its people, and messages of then are not mailed', async () => {
  const before = mkdtempSync(join(tmpdir(), 'wickerframe-migrations-'))
  for (const name of readdirSync(migrationsFolder))
    if (name < '0008') cpSync(join(migrationsFolder, name), join(before, name))
  const { pool, stop } = await startFreshSchema(before)
  try {
    await putTerm(pool, exampleFacts().term)
    await pool.query(
      `INSERT INTO courses (
         id, platform_id, term_code, code, title, department, modality, weeks, status,
           class_section_kind, topics
       )
       VALUES (
         1, 'one', 'autumn-2026', 'NAV 110', 'Navigation', 'NAV', 'online', 8, 'teaching', 'own',
           '{}'
       )`,
    )
    for (const [position, name] of ['bo', 'ana'].entries())
      await pool.query(
        `INSERT INTO course_instructors (course_id, email, name, position)
         VALUES (1, ?, ?, ?)`,
        [`${name}@kestrelsound.example`, name, position],
      )
    await pool.query(
      `INSERT INTO messages (recipient, sent_at, subject, body)
       VALUES ('bo@kestrelsound.example', '2026-09-01', 'Of then', '')`,
    )
    await migrate(pool, migrationsFolder)
    const [course] = await listCourses(pool, 'system', '2026-09-16')
    expect(course?.facts.instructors.map(({ name }) => name)).toEqual(['bo', 'ana'])
    expect(course?.summary).toMatchObject({ owner: 'bo@kestrelsound.example', assistants: [] })
    const [unsent] = await pool.query(
      `SELECT id
       FROM messages
       WHERE mailed_at IS NULL`,
    )
    expect(unsent).toEqual([])
  } finally {
    await stop()
    rmSync(before, { recursive: true })
  }
})
