import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, describe, expect, it } from 'vitest'
import { checkPool } from './checkPool.ts'

const folder = mkdtempSync(join(tmpdir(), 'wickerframe-pool-'))
afterAll(() => rmSync(folder, { recursive: true }))
const program = (name: string, onMessage: string): string => {
  const file = join(folder, `${name}.mjs`)
  writeFileSync(
    file,
    `import { parentPort } from 'node:worker_threads'\nparentPort.on('message', ({ questions, asOf }) => {\n${onMessage}\n})\n`,
  )
  return file
}
const answerAll =
  "for (const { id, courseId } of questions) parentPort.postMessage({ id, answer: { state: 'checked', met: courseId, requirements: questions.length } })"
const ids = Array.from({ length: 20 }, (_, i) => i + 1)

describe('threads that check', () => {
  it('are asked in sets, and answer each question', async () => {
    const pool = checkPool(program('all', answerAll), 2)
    const answers = await Promise.all(
      ids.map((id) => pool.checkCourse(id, '2026-09-16', '2026-09-16')),
    )
    await pool.stop()
    expect(answers.map((answer) => (answer.state === 'checked' ? answer.met : null))).toEqual(ids)
    expect(
      Math.max(...answers.map((answer) => (answer.state === 'checked' ? answer.requirements : 0))),
    ).toBeGreaterThan(1)
  })

  it('are asked in one set only what is of one day', async () => {
    const pool = checkPool(
      program(
        'days',
        "for (const { id } of questions) parentPort.postMessage({ id, answer: { state: 'unusable', reason: asOf } })",
      ),
      1,
    )
    const days = ids.map((id) => (id % 3 === 0 ? '2026-09-16' : '2026-09-17'))
    const answers = await Promise.all(
      ids.map((id, i) => pool.checkCourse(id, days[i] ?? '', '2026-09-16')),
    )
    await pool.stop()
    expect(answers.map((answer) => (answer.state === 'unusable' ? answer.reason : null))).toEqual(
      days,
    )
  })

  it.each([
    [
      'throws',
      "if (questions.some((one) => one.courseId === 13)) throw new Error('too much of it')",
      'too much of it',
    ],
    [
      'ends',
      'if (questions.some((one) => one.courseId === 13)) process.exit(1)',
      'the thread ended',
    ],
  ])('only what kills a thread fails: it %s', async (name, dies, message) => {
    const pool = checkPool(program(name, `${dies}\n${answerAll}`), 2)
    const answers = await Promise.all(
      ids.map((id) => pool.checkCourse(id, '2026-09-16', '2026-09-16')),
    )
    await pool.stop()
    expect(
      answers.flatMap((answer, i) => (answer.state === 'failed' ? [[ids[i], answer.message]] : [])),
    ).toEqual([[13, message]])
    expect(answers.filter((answer) => answer.state === 'checked')).toHaveLength(ids.length - 1)
  })
})
