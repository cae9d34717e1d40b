import type { Browser, Page } from 'playwright-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { CourseDetail, CourseSummary, TemplateDraft } from '@wickerframe/contract'
import { everyCourseItem, everyItem, type Course, type Facts } from '@wickerframe/core'
import { openBrowser } from '@wickerframe/scripts/browser'
import { growTo } from './largeCollege.ts'
import { planRollout, runOf, versionOrder } from './rollouts.ts'
import { signInWith } from './signIn.ts'
import { startTestBed, until, type TestBed } from './testBed.ts'

let bed: TestBed
let browser: Browser
let page: Page

beforeAll(async () => {
  bed = await startTestBed({ courses: 6, followSeconds: 1 })
  await growTo(bed.pool, 2000)
  await bed.startWorker()
  browser = await openBrowser()
  page = await signInWith(browser, bed.address, 'designer@kestrelsound.example')
})
afterAll(async () => {
  await browser?.close()
  await bed.stop()
})

/** Somebody edits a course on the platform itself. */
const edit = async (platformId: string, change: object): Promise<void> => {
  const course = (await bed.connector(`/courses/${platformId}/snapshot`)) as Course
  const answer = await fetch(
    `${bed.platformAddress}/connector/v1/courses/${platformId}/change-sets`,
    {
      method: 'POST',
      headers: {
        authorization: bed.authorization,
        'content-type': 'application/json',
        'idempotency-key': `edit-${platformId}-${course.revision}`,
      },
      body: JSON.stringify({ expectedRevision: course.revision, changes: [change] }),
    },
  )
  expect(answer.status).toBe(200)
}

describe('a course that is changed on the platform', () => {
  it('is read, checked and drawn anew in the weave somebody looks at, and none of 2,000 others is read', async () => {
    const listed = async () =>
      (await (await page.request.get(`${bed.address}/api/courses`)).json()) as CourseSummary[]
    const known = await listed()
    // One of the first, which are on the platform.
    const [course] = known
      .filter(({ status, check }) => status === 'teaching' && check)
      .sort((a, b) => a.id - b.id)
    if (!course) throw new Error('no course that was checked')
    // The roster of the large college may say otherwise of it than that of the small one.
    const designer = await bed.as('designer@kestrelsound.example')
    const { body } = await designer.post<{ run: number }>(`/api/courses/${course.id}/check`)
    await until(
      () => runOf(designer, body.run),
      ({ state }) => state === 'done',
    )
    await page.goto(`${bed.address}/conformance`)
    const musts = page.getByText('open musts').locator('..').locator('span').first()
    await musts.waitFor()
    const before = Number(await musts.textContent())
    await edit(course.platformId, { change: 'set-course', published: false })
    const begun = Date.now()
    await expect
      .poll(async () => Number(await musts.textContent()), { timeout: 60_000, interval: 100 })
      .toBe(before + 1)
    // 10 s are the goal; how long it took on a busy machine is told, and held to no more than six times that.
    console.log(`drawn anew after ${Date.now() - begun} ms`)
    const readAt = new Map(known.map((one) => [one.id, one.readAt]))
    const readAnew = (await listed()).filter((one) => readAt.get(one.id) !== one.readAt)
    expect(readAnew.map(({ id }) => id)).toEqual([course.id])
    await edit(course.platformId, { change: 'set-course', published: true })
    await expect
      .poll(async () => Number(await musts.textContent()), { timeout: 60_000, interval: 100 })
      .toBe(before)
  })
})

describe('a page that speaks to its reader by name', () => {
  const key = 'distance-standard'
  it('says what the platform shows a name for, as students read it, until it shows none', async () => {
    const designer = await bed.as('designer@kestrelsound.example')
    const { draft, draftRevision } = (await designer.get<TemplateDraft>(`/api/templates/${key}`))
      .body
    const promise = everyItem(draft)
      .find((item) => item.key === 'welcome')
      ?.blocks.find((block) => block.key === 'answer-promise')
    if (promise?.kind !== 'fixed-text') throw new Error('the welcome promises answers')
    const edited = await designer.post(`/api/templates/${key}/edits`, {
      revision: draftRevision,
      edits: [
        {
          edit: 'set-block',
          part: 'welcome',
          block: promise.key,
          field: 'html',
          was: promise.html,
          value: '<p>Ask, {reader, all of you}, and you are answered.</p>',
        },
      ],
    })
    expect(edited.status, JSON.stringify(edited.body)).toBe(200)
    const { body: released } = await designer.post<{ version: number }>(
      `/api/templates/${key}/release`,
      { revision: draftRevision + 1, note: 'By name' },
    )
    const course = (await designer.get<CourseSummary[]>('/api/courses')).body
      .filter(({ template, status }) => template?.key === key && status === 'teaching')
      .sort((a, b) => a.id - b.id)[0]
    if (!course) throw new Error('a course is under the standard')
    const factsNow = async () =>
      (await designer.get<Facts>(`/api/courses/${course.id}/facts`)).body.readerName ?? null
    await until(factsNow, (name) => name !== null)
    const order = versionOrder(key, released.version)
    const { run } = await planRollout(bed, designer, order, [course.id])
    await designer.post(`/api/runs/${run}/approve`)
    await until(
      () => runOf(designer, run),
      ({ state }) => state === 'done',
    )
    const stands = (await bed.connector(`/courses/${course.platformId}/snapshot`)) as Course
    const welcome = everyCourseItem(stands).find(({ item }) =>
      item.name.startsWith('Welcome'),
    )?.item
    expect(welcome?.html).toContain('Ask, ((given name)), and you are answered.')
    await page.goto(`${bed.platformAddress}/courses/${course.platformId}/items/${welcome?.id}`)
    await page.getByText('Ask, Linnea, and you are answered.').waitFor()
    const { result } = (await designer.get<CourseDetail>(`/api/courses/${course.id}`)).body
    expect(
      result?.findings.filter(
        ({ rule, places }) =>
          rule === 'fixed-text-altered' && places.some(({ place }) => place.part === 'welcome'),
      ),
    ).toEqual([])
    await bed.misbehave('no-reader-name', 1)
    await until(factsNow, (name) => name === null)
    const { plans } = await planRollout(bed, designer, order, [course.id])
    expect(JSON.stringify(plans)).toContain('Ask, all of you, and you are answered.')
  })
})
