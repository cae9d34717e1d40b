import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { everyCourseItem, type Course } from '@wickerframe/core'
import type { CourseSummary } from '@wickerframe/contract'
import { demoTemplate } from '@wickerframe/demo'
import { planRollout, versionOrder, workUntil } from './rollouts.ts'
import { startTestBed, type Client, type TestBed } from './testBed.ts'

let bed: TestBed
let designer: Client
let courses: CourseSummary[]

/** Two templates whose banner has one file name: a drawing in the one, a photograph in the other. */
const contents = {
  'jetty-standard': { svg: '<svg xmlns="http://www.w3.org/2000/svg"/>' },
  'quay-standard': {
    base64:
      'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
  },
}
type Standard = keyof typeof contents

beforeAll(async () => {
  bed = await startTestBed({ courses: 2 })
  designer = await bed.as('designer@kestrelsound.example')
  for (const [key, content] of Object.entries(contents)) {
    const { assets, ...template } = structuredClone(demoTemplate('short-course-standard.json'))
    const made = await designer.post('/api/templates', {
      ...template,
      key,
      title: key,
      assets: assets.map((asset) => ({
        key: asset.key,
        alternativeText: asset.alternativeText,
        licence: asset.licence,
        fileName: 'photo.png',
        ...content,
      })),
    })
    expect(made.status).toBe(200)
    await designer.post(`/api/templates/${key}/release`, { revision: 0, note: 'First' })
  }
  courses = (await designer.get<CourseSummary[]>('/api/courses')).body
})
afterAll(() => bed.stop())

const deploy = async (template: Standard, course: CourseSummary): Promise<number> => {
  const { run } = await planRollout(bed, designer, versionOrder(template, 1), [course.id])
  await designer.post(`/api/runs/${run}/approve`)
  const done = await workUntil(bed, designer, run, 'done')
  expect(done.tasks.map((task) => task.state)).toEqual(['done'])
  return run
}
/** What the banner of a course shows: the media type and bytes behind its address. */
const shownIn = async (course: CourseSummary): Promise<{ type: string | null; bytes: string }> => {
  const read = (await bed.connector(`/courses/${course.platformId}/snapshot`)) as Course
  const home = everyCourseItem(read).find(({ item }) => item.id === read.homePage)?.item
  const source = /src="(\/files\/[^"]+)"/.exec(home?.html ?? '')?.[1]
  const answer = await fetch(`${bed.platformAddress}${source}`)
  expect(answer.status).toBe(200)
  return {
    type: answer.headers.get('content-type'),
    bytes: Buffer.from(await answer.arrayBuffer()).toString('base64'),
  }
}
const drawing = {
  type: expect.stringContaining('image/svg+xml') as string,
  bytes: Buffer.from(contents['jetty-standard'].svg).toString('base64'),
}
const photograph = { type: 'image/png', bytes: contents['quay-standard'].base64 }

describe('images of one file name', () => {
  it(
    'stay what they are in every course, whatever another course is given, and come back with an undo',
    { timeout: 120_000 },
    async () => {
      const [one, other] = courses as [CourseSummary, CourseSummary]
      await deploy('jetty-standard', one)
      await deploy('quay-standard', other)
      expect(await shownIn(one)).toEqual(drawing)
      expect(await shownIn(other)).toEqual(photograph)

      const run = await deploy('quay-standard', one)
      expect(await shownIn(one)).toEqual(photograph)
      const { body } = await designer.post<{ run: number }>(`/api/rollouts/${run}/undo`)
      await workUntil(bed, designer, body.run, 'planned')
      await designer.post(`/api/runs/${body.run}/approve`)
      await workUntil(bed, designer, body.run, 'done')
      expect(await shownIn(one)).toEqual(drawing)
    },
  )
  const put = async (name: string, body: string): Promise<number> =>
    (
      await fetch(`${bed.platformAddress}/connector/v1/assets/${encodeURIComponent(name)}`, {
        method: 'PUT',
        headers: { authorization: bed.authorization, 'content-type': 'application/octet-stream' },
        body,
      })
    ).status
  it('the platform gives a name to one content for good, and takes images only', async () => {
    expect(await put('gull.photo.svg', '<svg/>')).toBe(200)
    expect(await put('gull.photo.svg', '<svg/>')).toBe(200)
    expect(await put('gull.photo.svg', '<svg></svg>')).toBe(409)
    expect(await put('..gull.svg', '<svg/>')).toBe(400)
    expect(await put('gull.png', '<html></html>')).toBe(400)
  })
})
