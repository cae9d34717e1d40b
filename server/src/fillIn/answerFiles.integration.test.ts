import { createHash } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { bytesKept, keepContent } from '@wickerframe/storage'
import { startPrivateCollege, type PrivateCollege } from '../testing/privateCollege.testing.ts'
import { forgetAnswerFiles, isAnswerFile, keepForGood, noteAnswerFile } from './answerFiles.ts'

let college: PrivateCollege
beforeAll(async () => {
  college = await startPrivateCollege()
})
afterAll(() => college.stop())

/** Keeps bytes as an answer in a course, some days ago. */
const kept = async (course: number, words: string, daysAgo: number) => {
  const bytes = Buffer.from(words)
  const file = { name: 'a.txt', content: createHash('sha256').update(bytes).digest('hex') }
  const source = (async function* () {
    yield bytes
  })()
  const outcome = await keepContent(college.pool, source, 1000)
  await noteAnswerFile(college.pool, course, file, outcome.state === 'kept' && outcome.isNew)
  await college.rows(
    `UPDATE answer_files
     SET put_at = NOW(3) - INTERVAL ? DAY
     WHERE course_id = ? AND content = ?`,
    [daysAgo, course, file.content],
  )
  return file
}
const isKept = async ({ content }: { content: string }) =>
  (await bytesKept(college.pool, content)) !== null

describe('files that were put in as answers', () => {
  it('go after a while, but for what is younger elsewhere, or the college’s own', async () => {
    const old = await kept(1, 'old', 40)
    const young = await kept(1, 'young', 2)
    const again = await kept(1, 'in two courses', 40)
    await kept(2, 'in two courses', 2)
    const both = await kept(1, 'old in two courses', 50)
    await kept(2, 'old in two courses', 40)
    const houses = await kept(1, 'the college’s too', 40)
    await keepForGood(college.pool, [houses.content])
    await forgetAnswerFiles(college.pool, 30)
    expect(await Promise.all([old, young, again, both, houses].map(isKept))).toEqual([
      false,
      true,
      true,
      false,
      true,
    ])
    expect(await isAnswerFile(college.pool, 1, old)).toBe(false)
    expect(await isAnswerFile(college.pool, 1, young)).toBe(true)
    expect(await isAnswerFile(college.pool, 2, young)).toBe(false)
    expect(await isAnswerFile(college.pool, 1, { ...young, name: 'a.pdf' })).toBe(false)
  })
})
