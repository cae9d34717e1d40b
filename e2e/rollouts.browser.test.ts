import type { Browser, Page } from 'playwright-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { everyCourseItem, type Course } from '@wickerframe/core'
import type { CourseSummary, TemplateDraft } from '@wickerframe/contract'
import { demoTemplate } from '@wickerframe/demo'
import { openBrowser } from '@wickerframe/scripts/browser'
import { violations } from './axe.ts'
import { signInWith } from './signIn.ts'
import { startTestBed, until, type Client, type TestBed } from './testBed.ts'

let bed: TestBed
let browser: Browser
let page: Page
let designer: Client
const key = 'lantern-standard'
const pageErrors: string[] = []

beforeAll(async () => {
  bed = await startTestBed({ courses: 6 })
  await bed.startWorker()
  designer = await bed.as('designer@kestrelsound.example')
  expect(
    (
      await designer.post('/api/templates', {
        ...demoTemplate('short-course-standard.json'),
        key,
        title: 'Lantern Standard',
      })
    ).status,
  ).toBe(200)
  expect(
    (await designer.post(`/api/templates/${key}/release`, { revision: 0, note: 'First' })).status,
  ).toBe(200)
  browser = await openBrowser()
  page = await signInWith(browser, bed.address, 'designer@kestrelsound.example')
  page.on('pageerror', (cause) => pageErrors.push(cause.message))
})
afterAll(async () => {
  await browser?.close()
  await bed.stop()
})

const courses = async (): Promise<CourseSummary[]> =>
  (await designer.get<CourseSummary[]>('/api/courses')).body.filter((course) =>
    course.classSections.some((section) => section.startsWith('L')),
  )
const snapshot = async (course: CourseSummary): Promise<Course> =>
  (await bed.connector(`/courses/${course.platformId}/snapshot`)) as Course
const welcomeOf = async (course: CourseSummary) =>
  everyCourseItem(await snapshot(course)).find(({ item }) => item.name.startsWith('Welcome'))?.item
const ended = async () => page.getByText('What came of it').waitFor()

describe('a rollout, as a designer goes through it', () => {
  it('makes courses from pasted roster rows, with what would be made shown first', async () => {
    await page.goto(`${bed.address}/courses`)
    await page.getByRole('button', { name: 'Make courses' }).click()
    const rows = ['L1', 'L2', 'L3'].map(
      (section) =>
        `SAF 150,Liferaft & Flare Drill,autumn-2026,first-half,${section},own,pilar@kestrelsound.example,Pilar Hjort,on-campus,8,teaching`,
    )
    await page
      .getByLabel(/The table/)
      .fill(
        [
          'code,title,term,session,class section,own or shared,instructor e-mail,instructor name,modality,weeks,status',
          ...rows,
        ].join('\n'),
      )
    await page.getByLabel('Template whose format names them').selectOption(key)
    await page.getByRole('button', { name: 'See what it would do' }).click()
    await page.getByText('This would make 3 courses').waitFor()
    await page.getByRole('button', { name: 'Make the courses' }).click()
    await page.getByText(/Made 3 courses/).waitFor()
    expect(await violations(page)).toEqual([])
    expect(await courses()).toHaveLength(3)
  })

  it('chooses them, reads the plan and deploys', async () => {
    const ids = (await courses()).map((course) => course.id)
    await page.goto(`${bed.address}/rollouts/new?template=${key}&courses=${ids.join('.')}`)
    expect(await violations(page)).toEqual([])
    await page.getByRole('button', { name: 'Make the plans for 3 courses' }).click()
    await page.getByRole('heading', { name: /^3 courses: the same \d+ changes/ }).waitFor()
    await page.getByRole('button', { name: 'Approve and run 3 courses' }).click()
    await ended()
    await page.getByText(/^3 of 3 courses/).waitFor()
    for (const course of await courses())
      expect((await snapshot(course)).modules.length).toBeGreaterThan(5)
  })

  it('sees what an instructor wrote and what the template changed, and decides the one conflict', async () => {
    const [course] = (await courses()) as [CourseSummary]
    const welcome = await welcomeOf(course)
    // The instructor plays on the practice platform: answers a fill-in, and puts the college's own words differently.
    const platform = await (await browser.newContext()).newPage()
    await platform.goto(`${bed.platformAddress}/courses/${course.platformId}/items/${welcome?.id}`)
    for (const [words, text] of [
      ['Say who you are', 'I am Pilar, and I have rowed since I was six.'],
      ['Each week opens', 'A week opens when the tide turns.'],
    ] as const)
      await platform.locator('textarea', { hasText: words }).first().fill(text)
    await platform.getByRole('button', { name: 'keep the page so' }).click()
    await platform.getByRole('heading', { name: 'Edit the text' }).waitFor()
    expect((await welcomeOf(course))?.html).toContain('when the tide turns')
    const { body } = await designer.get<TemplateDraft>(`/api/templates/${key}`)
    const part = body.draft.parts
      .flatMap((part) => (part.kind === 'module' ? part.items : []))
      .find(({ key }) => key === 'welcome')
    const block =
      part && part.kind !== 'module'
        ? part.blocks.find(
            (block) => block.kind === 'fixed-text' && block.html.includes('Each week opens'),
          )
        : undefined
    if (block?.kind !== 'fixed-text') throw new Error('the welcome says how the course runs')
    expect(
      (
        await designer.post(`/api/templates/${key}/edits`, {
          revision: body.draftRevision,
          edits: [
            {
              edit: 'set-block',
              part: 'welcome',
              block: block.key,
              field: 'html',
              was: block.html,
              value: block.html.replace('Each week opens', 'From now on each week opens'),
            },
            {
              edit: 'set-field',
              part: 'questions',
              field: ['name'],
              was: body.draft.parts
                .flatMap((part) => (part.kind === 'module' ? part.items : []))
                .find(({ key }) => key === 'questions')?.name,
              value: 'Ask the watch',
            },
          ],
        })
      ).status,
    ).toBe(200)
    expect(
      (
        await designer.post(`/api/templates/${key}/release`, {
          revision: body.draftRevision + 1,
          note: 'Second',
        })
      ).body,
    ).toMatchObject({ version: 2 })

    const ids = (await courses()).map(({ id }) => id)
    await page.goto(
      `${bed.address}/rollouts/new?template=${key}&version=2&courses=${ids.join('.')}`,
    )
    await page.getByRole('button', { name: /^Make the plans/ }).click()
    await page.getByRole('heading', { name: /^2 courses: the same 2 changes/ }).waitFor()
    await page.getByRole('heading', { name: /^1 course: .*1 conflict to decide/ }).waitFor()
    await page.getByText('1 conflict not decided on').waitFor()
    await page.getByRole('button', { name: 'open the course' }).click()
    await page.getByRole('button', { name: 'see the differences' }).click()
    const plan = page.getByRole('region', { name: /^Plan for SAF 150/ })
    await plan.locator('ins', { hasText: 'tide' }).first().waitFor()
    await plan.locator('ins', { hasText: 'now' }).first().waitFor()
    expect(await violations(page)).toEqual([])
    await plan.getByRole('radio', { name: 'keep the instructor’s' }).check()
    await page.getByText('1 conflict not decided on').waitFor({ state: 'detached' })
    await page.getByRole('button', { name: 'Approve and run 3 courses' }).click()
    await ended()
    await page.getByText(/^3 of 3 courses: 3 done/).waitFor()
    const html = (await welcomeOf(course))?.html ?? ''
    expect([
      html.includes('when the tide turns'),
      html.includes('I have rowed since'),
      html.includes('From now on'),
    ]).toEqual([true, true, false])
    expect((await courses()).map(({ template }) => template?.version)).toEqual([2, 2, 2])
  })

  it('takes it back in two courses, and sees it in the history', async () => {
    const boxes = page.getByRole('checkbox', { name: /^Choose SAF 150/ })
    for (const place of [0, 1]) await boxes.nth(place).check()
    await page.getByRole('button', { name: 'Plan to take it back in 2 courses' }).click()
    await page.getByRole('heading', { name: /^Take back/ }).waitFor()
    await page.getByRole('button', { name: 'Approve and run 2 courses' }).click()
    await ended()
    await page.getByText(/^2 of 2 courses: 2 done/).waitFor()
    expect((await courses()).map(({ template }) => template?.version).sort()).toEqual([1, 1, 2])
    const [course] = (await courses()).filter(({ template }) => template?.version === 1) as [
      CourseSummary,
    ]
    expect(
      everyCourseItem(await snapshot(course)).some(({ item }) => item.name === 'Ask the watch'),
    ).toBe(false)
    await page.goto(`${bed.address}/courses/${course.id}?show=history`)
    await page.getByText(/taken back by/).waitFor()
    await page.getByText('Version 2 of Lantern Standard is out').waitFor()
  })

  it('tells of it in a message, and plans next term', async () => {
    await page.goto(`${bed.address}/rollouts`)
    await page.getByRole('heading', { name: /messages? for you/ }).waitFor()
    await page.getByRole('link', { name: 'Next term' }).click()
    await page.getByLabel('New term').selectOption('winter-short-2027')
    await page.getByText(/^Which courses/).click()
    const from = page.getByRole('list', { name: 'Courses to begin from' }).getByRole('checkbox')
    await from.first().waitFor()
    for (const box of await from.all()) await box.uncheck()
    await page
      .getByRole('list', { name: 'Courses to begin from' })
      .getByRole('checkbox', { name: /L1$/ })
      .check()
    await page.getByRole('button', { name: 'Make 1 shell and plan' }).click()
    await page.getByRole('link', { name: /^run \d+/ }).click()
    await page.getByRole('heading', { name: /^1 course: \d+ changes/ }).waitFor()
    await page.getByRole('button', { name: 'Approve and run 1 course' }).click()
    await page.getByText(/^1 of 1 course: 1 done/).waitFor()
    const made = await until(
      async () =>
        (await designer.get<CourseSummary[]>('/api/courses')).body.find(
          ({ term }) => term === 'winter-short-2027',
        ),
      (found) => found !== undefined,
    )
    expect(made && (await welcomeOf(made))?.html).toContain('I have rowed since')
  })

  it('puts a shell under a version for checking only, and writes nothing', async () => {
    const row =
      'SAF 150,Liferaft & Flare Drill,autumn-2026,first-half,L9,own,,,on-campus,8,teaching'
    await designer.post(
      '/api/courses/made?how=each',
      `code,title,term,session,class section,own or shared,instructor e-mail,instructor name,modality,weeks,status\n${row}`,
      { 'content-type': 'text/csv' },
    )
    const [shell] = (await courses()).filter(({ classSections }) =>
      classSections.includes('L9'),
    ) as [CourseSummary]
    const before = (await snapshot(shell)).revision
    await page.goto(`${bed.address}/courses/${shell.id}?show=history`)
    await page.getByLabel('Template for checking').selectOption(key)
    await page.getByRole('button', { name: 'Hold it to that version' }).click()
    await page.getByText('for checking only').waitFor()
    expect((await snapshot(shell)).revision).toBe(before)
    expect(await violations(page)).toEqual([])
  })

  it('raised no error on the page', () => expect(pageErrors).toEqual([]))
})
