import { BaseEntry, emptyBase, readDocument, type Base, type FieldBase } from '@wickerframe/core'
import { change, firstRow, rowsOf, type Database } from '@wickerframe/storage'
import { z } from 'zod'

const Fields = z.record(z.string(), z.strictObject({ sent: z.json(), echo: z.json() }))

/** What was last deployed to a course; empty when nothing was. Its bodies stay where they are kept. */
export const findBase = async (database: Database, courseId: number): Promise<Base> => {
  const row = await firstRow<{ fields: string; instances: string }>(database, 'SELECT fields, instances FROM course_bases WHERE course_id = ?', [courseId])
  if (!row) return emptyBase()
  const entries = new Map(
    (await rowsOf<{ instance: string; entry: string }>(database, 'SELECT instance, entry FROM bases WHERE course_id = ?', [courseId])).map(({ instance, entry }) => {
      const read = readDocument(BaseEntry, JSON.parse(entry))
      if (!read.ok) throw new Error(`the base of ${instance} in course ${courseId} cannot be read: ${JSON.stringify(read.problems[0])}`)
      return [instance, read.value] as const
    }),
  )
  const order = z.array(z.string()).parse(JSON.parse(row.instances))
  return { schema: 'wickerframe.base/1', course: Fields.parse(JSON.parse(row.fields)) as Record<string, FieldBase>, parts: order.flatMap((instance) => entries.get(instance) ?? []), bodies: {} }
}

/** Ids of every body a base speaks of. */
export const bodiesOfBase = (base: Base): string[] =>
  base.parts.flatMap((entry) => [...(entry.page === null ? [] : [entry.page]), ...entry.blocks.flatMap((block) => [block.sent, ...(block.page === null ? [] : [block.page])])])

/** Writes the base of a course: only what differs from the base before. */
export const storeBase = async (database: Database, courseId: number, before: Base, after: Base): Promise<void> => {
  const was = new Map(before.parts.map((entry) => [entry.instance, JSON.stringify(entry)]))
  const stays = new Set(after.parts.map((entry) => entry.instance))
  const gone = before.parts.filter((entry) => !stays.has(entry.instance)).map((entry) => entry.instance)
  for (let i = 0; i < gone.length; i += 200) {
    const part = gone.slice(i, i + 200)
    await change(database, `DELETE FROM bases WHERE course_id = ? AND instance IN (${part.map(() => '?').join(', ')})`, [courseId, ...part])
  }
  const differing = after.parts.flatMap((entry) => {
    const text = JSON.stringify(entry)
    return was.get(entry.instance) === text ? [] : [{ entry, text }]
  })
  for (let i = 0; i < differing.length; i += 100) {
    const part = differing.slice(i, i + 100)
    await change(
      database,
      `INSERT INTO bases (course_id, instance, platform_id, part, repetition, number, entry) VALUES ${part.map(() => '(?, ?, ?, ?, ?, ?, ?)').join(', ')}
       ON DUPLICATE KEY UPDATE platform_id = VALUES(platform_id), part = VALUES(part), repetition = VALUES(repetition), number = VALUES(number), entry = VALUES(entry)`,
      part.flatMap(({ entry, text }) => [courseId, entry.instance, entry.platformId, entry.part, entry.repetition, entry.number, text]),
    )
  }
  await change(database, 'INSERT INTO course_bases (course_id, fields, instances) VALUES (?, ?, ?) ON DUPLICATE KEY UPDATE fields = VALUES(fields), instances = VALUES(instances)', [
    courseId, JSON.stringify(after.course), JSON.stringify(after.parts.map((entry) => entry.instance)),
  ])
}
