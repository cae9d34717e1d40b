import type { Browser, Page } from 'playwright-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { everyCourseItem, type Course, type Template } from '@wickerframe/core'
import type { CourseSummary, TemplateDraft } from '@wickerframe/contract'
import { openBrowser } from '@wickerframe/scripts/browser'
import { signInWith } from './signIn.ts'
import { startTestBed, type Client, type TestBed } from './testBed.ts'

let bed: TestBed
let browser: Browser
let page: Page
let designer: Client
const pageErrors: string[] = []

beforeAll(async () => {
  bed = await startTestBed({ courses: 6 })
  await bed.startWorker()
  designer = await bed.as('designer@kestrelsound.example')
  browser = await openBrowser()
  page = await signInWith(browser, bed.address, 'designer@kestrelsound.example')
  page.on('pageerror', (cause) => pageErrors.push(cause.message))
})
afterAll(async () => {
  await browser?.close()
  await bed.stop()
})

const key = 'workshop-of-four'
const draft = async () => (await designer.get<TemplateDraft>(`/api/templates/${key}`)).body
const theCourse = async (): Promise<CourseSummary> => {
  const { body } = await designer.get<CourseSummary[]>('/api/courses')
  const course = body.find(({ classSections }) => classSections.includes('U1'))
  if (!course) throw new Error('the course was made')
  return course
}
const standing = async (): Promise<Course> =>
  (await bed.connector(`/courses/${(await theCourse()).platformId}/snapshot`)) as Course
const moduleOf = ({ parts }: Template) =>
  parts.find(({ kind, repeat }) => kind === 'module' && repeat)

describe('a course of units in place of weeks', () => {
  it('is asked for in sentences, and the template repeats by unit', async () => {
    await page.goto(`${bed.address}/templates/new?way=sentences`)
    await page.getByLabel('It is called').fill('Workshop of four')
    await page.getByLabel('Weeks', { exact: true }).selectOption('8')
    await page.getByLabel('Divided into').selectOption('unit')
    await page.getByLabel('Units', { exact: true }).selectOption('4')
    await page.getByLabel('Named by').selectOption('number-topic')
    await page.getByRole('button', { name: 'Make the template' }).click()
    await page.getByRole('treegrid').waitFor()
    const made = await draft()
    expect(made.draft.units).toBe(4)
    expect(moduleOf(made.draft)).toMatchObject({
      name: 'Unit {unit} · {topic}',
      repeat: { per: 'unit' },
    })
    const released = await designer.post(`/api/templates/${key}/release`, {
      revision: made.draftRevision,
      note: 'First',
    })
    expect(released.status).toBe(200)
  })

  it('is deployed with four modules, each over its own days', async () => {
    const made = await designer.post(
      '/api/courses/made?how=each',
      'code,title,term,session,class section,own or shared,instructor e-mail,instructor name,modality,weeks,status\nSAF 150,Liferaft & Flare Drill,autumn-2026,first-half,U1,own,pilar@kestrelsound.example,Pilar Hjort,on-campus,8,teaching',
      { 'content-type': 'text/csv' },
    )
    expect(made.status).toBe(200)
    const { id } = await theCourse()
    await page.goto(`${bed.address}/rollouts/new?template=${key}&courses=${id}`)
    await page.getByRole('button', { name: 'Make the plan' }).click()
    await page.getByRole('button', { name: 'Approve and run 1 course' }).click()
    await page.getByText(/^1 of 1 course: 1 done/).waitFor()
    const { modules } = await standing()
    const units = modules.filter(({ name }) => name.startsWith('Unit '))
    expect(units.map(({ name }) => name.slice(0, 6))).toEqual([
      'Unit 1',
      'Unit 2',
      'Unit 3',
      'Unit 4',
    ])
    // Two weeks each: of the session's eight, which begins on a Monday in August.
    expect(units.map(({ opensAt }) => opensAt?.slice(0, 10))).toEqual([
      '2026-08-31',
      '2026-09-14',
      '2026-09-28',
      '2026-10-12',
    ])
  })

  it('is filled in on the platform, and the check tells what is still asked', async () => {
    const { id, platformId } = await theCourse()
    const overview = (unit: number) => async () =>
      everyCourseItem(await standing()).find(({ item }) =>
        item.name.startsWith(`Unit ${unit} overview`),
      )?.item
    const platform = await (await browser.newContext()).newPage()
    await platform.goto(
      `${bed.platformAddress}/courses/${platformId}/items/${(await overview(1)())?.id}`,
    )
    await platform
      .locator('textarea', { hasText: 'In two or three sentences' })
      .first()
      .fill('A raft is launched in the dark, in rain and wind, by people who are cold and afraid.')
    await platform.getByRole('button', { name: 'keep the page so' }).click()
    await platform.getByRole('heading', { name: 'Edit the text' }).waitFor()
    expect((await overview(1)())?.html).toContain('launched in the dark')
    await page.goto(`${bed.address}/courses/${id}`)
    await page.getByRole('button', { name: 'Read again' }).click()
    await page.getByText('0 places new, 1 gone.').waitFor()
    const lines = (await page.getByRole('main').innerText()).split('\n')
    const asks = lines.filter((line) => line.includes('In two or three sentences'))
    expect(asks.map((line) => line.replaceAll(/\s+/g, ' '))).toEqual([
      '“Unit 2 overview” still asks: “In two or three sentences, say what this part of the course is about and why it matters.”.',
    ])
  })

  it('raised no error on the page', () => expect(pageErrors).toEqual([]))
})
