import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, describe, expect, it } from 'vitest'
import { checkCourse } from '@wickerframe/core'
import { exampleCourse } from '@wickerframe/core/testing'
import { reportFormats, type ReportedCourse } from '@wickerframe/interchange/report'
import { bundle } from '@wickerframe/scripts/bundle'
import { reportThreads } from './reportThreads.ts'
import { reportsHere } from './reportWriter.ts'

const folder = mkdtempSync(join(tmpdir(), 'wickerframe-reports-'))
afterAll(() => rmSync(folder, { recursive: true }))
const head = { title: 'All', made: '2026-09-16T12:00:00Z', version: '1.0.0' }
const courseOf = (id: string): ReportedCourse => {
  const example = exampleCourse()
  example.course.id = id
  example.course.published = false
  const result = checkCourse({ ...example, asOf: '2026-09-16' })
  if (!result.ok) throw new Error('the example is checked')
  return {
    result: result.value,
    at: `https://w.example/courses/${id}`,
    classSections: ['01'],
    department: 'NAV',
    owner: '',
  }
}
const courses = ['1', '2', '3'].map(courseOf)
async function* some(): AsyncGenerator<ReportedCourse[]> {
  yield courses.slice(0, 2)
  await Promise.resolve()
  yield courses.slice(2)
}
const text = (bytes: Uint8Array): string => new TextDecoder().decode(bytes)

describe('reports written in threads', () => {
  it('are those that are written here, in every format', async () => {
    const writer = reportThreads(await bundle('server/src/reportProgram.ts'))
    for (const format of ['html', 'csv', 'json', 'sarif', 'earl'] as const)
      expect(text(await writer.write(format, head, some()))).toBe(
        text(await reportsHere.write(format, head, some())),
      )
    const [first, second] = await writer.write('xlsx', head, some())
    // A spreadsheet is a ZIP archive: PK.
    expect([first, second]).toEqual([0x50, 0x4b])
    expect(Object.keys(reportFormats)).toHaveLength(6)
  })
  it.each([
    ['loops', 'for (;;) {}', /given up after 1 seconds/],
    ['dies', 'process.exit(1)', /could not be written/],
    ['throws', 'throw new Error("out of it")', /could not be written: out of it/],
  ])('are given up where one %s, and the next is written', async (name, program, says) => {
    const file = join(folder, `${name}.mjs`)
    writeFileSync(
      file,
      `import { parentPort } from 'node:worker_threads'
parentPort.on('message', (message) => { if ('format' in message) { ${program} } })
`,
    )
    const bad = reportThreads(file, { threads: 1, deadlineSeconds: 1, mostMegabytes: 60 })
    for (let i = 0; i < 2; i += 1)
      await expect(bad.write('csv', head, some())).rejects.toThrow(says)
  })
  it('are so many at once; more are told to come again', async () => {
    const writer = reportThreads(await bundle('server/src/reportProgram.ts'), {
      threads: 1,
      deadlineSeconds: 60,
      mostMegabytes: 200,
    })
    const first = writer.write('csv', head, some())
    await expect(writer.write('csv', head, some())).rejects.toThrow('ask again in a moment')
    expect((await first).length).toBeGreaterThan(100)
    expect((await writer.write('csv', head, some())).length).toBeGreaterThan(100)
  })
})
