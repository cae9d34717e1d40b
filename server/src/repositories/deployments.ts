import { everyCourseItem, everyModule, type BaseEntry, type Change, type Course, type RecordedPart } from '@wickerframe/core'
import type { CourseDetail } from '@wickerframe/contract'
import { change, firstRow, rowsOf, type Database } from '@wickerframe/storage'
import { sha256 } from '../digest.ts'
import { instantOfRow } from './moment.ts'

export const findBase = async (database: Database, courseId: number): Promise<BaseEntry[]> => {
  const rows = await rowsOf<{ instance: string; platform_id: string; part: string; repetition: string | null; number: number | null }>(
    database,
    'SELECT instance, platform_id, part, repetition, number FROM bases WHERE course_id = ? ORDER BY instance',
    [courseId],
  )
  return rows.map((row) => ({ instance: row.instance, platformId: row.platform_id, part: row.part, repetition: row.repetition, number: row.number }))
}

export interface Deployment {
  courseId: number
  runId: number
  templateId: number
  version: number
  by: string
  engine: string
  idempotencyKey: string
  expansion: unknown
}

/** Appends a deployment and puts the course under its version. The same key twice is one deployment. */
export const recordDeployment = async (database: Database, deployment: Deployment, parts: number): Promise<boolean> => {
  const { affected } = await change(
    database,
    `INSERT IGNORE INTO deployments (course_id, number, run_id, template_id, version, deployed_at, deployed_by, engine, idempotency_key, parts, expansion)
     SELECT ?, COALESCE(MAX(number), 0) + 1, ?, ?, ?, NOW(3), ?, ?, ?, ?, ? FROM deployments WHERE course_id = ?`,
    [
      deployment.courseId, deployment.runId, deployment.templateId, deployment.version, deployment.by, deployment.engine, deployment.idempotencyKey, parts,
      JSON.stringify(deployment.expansion), deployment.courseId,
    ],
  )
  if (affected === 1) await change(database, 'UPDATE courses SET template_id = ?, version = ? WHERE id = ?', [deployment.templateId, deployment.version, deployment.courseId])
  return affected === 1
}

/** Keeps, for each part a change set made, the platform's echo and the form we sent: the base of the next merge. */
export const recordBases = async (database: Database, courseId: number, creates: readonly RecordedPart[], changes: readonly Change[], ids: Readonly<Record<string, string>>, echo: Course): Promise<void> => {
  const sent = new Map(changes.flatMap((one) => (one.change === 'create-item' || one.change === 'create-module' ? [[one.clientId, one.fields]] : [])))
  const echoed = new Map<string, object>()
  for (const { id, name, published, opensAt } of everyModule(echo.modules)) echoed.set(id, { name, published, opensAt })
  for (const { item } of everyCourseItem(echo)) {
    const { id, studentWork: _, html, ...fields } = item
    echoed.set(id, { ...fields, html: html === null ? null : sha256(html) })
    if (html !== null) await change(database, 'INSERT IGNORE INTO page_bodies (hash, html) VALUES (?, ?)', [sha256(html), html])
  }
  for (const part of creates) {
    const platformId = ids[part.instance]
    if (platformId === undefined) continue
    await change(
      database,
      'INSERT INTO bases (course_id, instance, platform_id, part, repetition, number, echo, sent) VALUES (?, ?, ?, ?, ?, ?, ?, ?) ON DUPLICATE KEY UPDATE platform_id = VALUES(platform_id), echo = VALUES(echo), sent = VALUES(sent)',
      [courseId, part.instance, platformId, part.part, part.repetition, part.number, JSON.stringify(echoed.get(platformId) ?? null), JSON.stringify(sent.get(part.instance) ?? null)],
    )
  }
}

export const deploymentsOf = async (database: Database, courseId: number): Promise<CourseDetail['history']> => {
  const rows = await rowsOf<CourseDetail['history'][number]>(
    database,
    `SELECT deployments.number, templates.title AS template, deployments.version, deployments.deployed_at AS at, deployments.deployed_by AS \`by\`, deployments.parts
     FROM deployments JOIN templates ON templates.id = deployments.template_id WHERE deployments.course_id = ? ORDER BY deployments.number DESC`,
    [courseId],
  )
  return rows.map((row) => ({ ...row, at: instantOfRow(row.at) }))
}

/** Whether another run has a change set of this course under way, whose fate is not known. */
export const hasUnresolvedKey = async (database: Database, courseId: number, exceptTask: number): Promise<boolean> =>
  (await firstRow(database, "SELECT id FROM tasks WHERE course_id = ? AND id <> ? AND state IN ('sent', 'at-work') AND idempotency_key IS NOT NULL LIMIT 1", [courseId, exceptTask])) !== null
