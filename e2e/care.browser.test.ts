import { readFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import type { Browser, Page } from 'playwright-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { AskedOfCourse, CourseDetail, CourseSummary } from '@wickerframe/contract'
import { openBrowser } from '@wickerframe/scripts/browser'
import { violations } from './axe.ts'
import { signInWith } from './signIn.ts'
import { startTestBed, type TestBed } from './testBed.ts'

let bed: TestBed
let browser: Browser
let page: Page
let instructor: Page

beforeAll(async () => {
  bed = await startTestBed({ courses: 24 })
  await bed.startWorker()
  browser = await openBrowser()
  page = await signInWith(browser, bed.address, 'designer@kestrelsound.example')
  instructor = await signInWith(browser, bed.address, 'sunniva.drake@kestrelsound.example')
})
afterAll(async () => {
  await browser?.close()
  await bed.stop()
})

const courseWith = async (rule: string): Promise<CourseDetail> => {
  const courses = (await (
    await page.request.get(`${bed.address}/api/courses`)
  ).json()) as CourseSummary[]
  for (const { id } of courses) {
    const detail = (await (
      await page.request.get(`${bed.address}/api/courses/${id}`)
    ).json()) as CourseDetail
    if (detail.result?.findings.some((finding) => finding.rule === rule)) return detail
  }
  throw new Error(`no course has ${rule}`)
}

/** Processor time that the page’s thread takes for something, in milliseconds: what other programs do is not in it. */
const processorMilliseconds = async (on: Page, script: string): Promise<number> => {
  const session = await on.context().newCDPSession(on)
  await session.send('Performance.enable', { timeDomain: 'threadTicks' })
  const taken = async () =>
    (await session.send('Performance.getMetrics')).metrics.find(
      ({ name }) => name === 'TaskDuration',
    )?.value ?? 0
  const before = await taken()
  await on.evaluate(script)
  const after = await taken()
  await session.detach()
  return (after - before) * 1000
}

describe('what to mend', () => {
  it('shows every change of a mend before it is made, makes it, and tells what is gone', async () => {
    const { id } = await courseWith('week-dates')
    await page.goto(`${bed.address}/courses/${id}`)
    await page
      .getByRole('button', { name: /^mend: rename it ×/ })
      .first()
      .click()
    const dialog = page.getByRole('dialog')
    await dialog
      .getByText(/is renamed to/)
      .first()
      .waitFor()
    expect(await violations(page)).toEqual([])
    await dialog.getByRole('button', { name: 'Mend them' }).click()
    await page.getByText(/place(s)? new, [1-9]\d* gone/).waitFor()
    expect(
      await page.locator('[data-finding]').filter({ hasText: 'says Aug 31 – Sep 7' }).count(),
    ).toBe(0)
  })
  it('is waived with a reason, which stays visible and can be withdrawn', async () => {
    const { id } = await courseWith('fixed-text-altered')
    await page.goto(`${bed.address}/courses/${id}?by=rule`)
    await page
      .locator('[data-finding="fixed-text-altered"]')
      .first()
      .getByRole('button', { name: 'waive' })
      .click()
    const dialog = page.getByRole('dialog')
    await dialog.getByLabel('Why it is right as it is').fill('Agreed with the dean')
    expect(await violations(page)).toEqual([])
    await dialog.getByRole('button', { name: /^Give the waiver/ }).click()
    await page.getByRole('heading', { name: 'Waived' }).waitFor()
    await page.getByText('Agreed with the dean').first().waitFor()
    await page.getByRole('button', { name: 'withdraw' }).click()
    await page
      .getByText(/changes fixed text/)
      .first()
      .waitFor()
  })
  it('is raised with the instructor, and followed up', async () => {
    const { id } = await courseWith('staff-part-visible')
    await page.goto(`${bed.address}/courses/${id}`)
    const line = page.locator('[data-finding="staff-part-visible"]').first()
    await line.getByRole('button', { name: 'raise' }).click()
    await line.getByText(/^raised with/).waitFor()
    await line.getByRole('button', { name: 'promise' }).click()
    // The day is chosen from the month, by keyboard: the ninth day after today.
    await page.getByRole('button', { name: 'Mended by: choose from a month' }).press('Enter')
    await page.getByRole('grid', { name: 'September 2026' }).waitFor()
    expect(await violations(page)).toEqual([])
    for (const key of ['ArrowDown', 'ArrowRight', 'ArrowRight', 'Enter'])
      await page.keyboard.press(key)
    const by = page.getByLabel('Mended by', { exact: true })
    expect(await by.inputValue()).toBe('Fri 25 Sep 2026')
    expect(await violations(page)).toEqual([])
    await page.getByRole('button', { name: 'Promise', exact: true }).click()
    await line.getByText(/promised it for 2026-09-25/).waitFor()
  })
  it('is chosen by heading and raised together, by keyboard alone', async () => {
    const { id } = await courseWith('fill-in-unfilled')
    await page.goto(`${bed.address}/courses/${id}?by=rule`)
    await page
      .getByRole('button', { name: /^choose all/ })
      .first()
      .focus()
    await page.keyboard.press('Enter')
    await page.getByText(/^\d+ chosen$/).waitFor()
    await page.getByRole('button', { name: /^Raise \d/ }).focus()
    await page.keyboard.press('Enter')
    await page
      .getByText(/^raised with/)
      .nth(1)
      .waitFor()
    await page.getByText(/^\d+ chosen$/).waitFor({ state: 'detached' })
    expect(await violations(page)).toEqual([])
  })
  it('is asked for by an instructor, who sees no more than is theirs', async () => {
    await instructor.getByRole('heading', { name: 'Your courses' }).waitFor()
    await instructor.getByRole('row').getByRole('link').first().click()
    await instructor.getByRole('tab', { name: /What to mend/ }).waitFor()
    expect(await instructor.getByRole('button', { name: 'raise' }).count()).toBe(0)
    expect(await violations(instructor)).toEqual([])
  })
  it('looks ahead to next Monday and back to opening day', async () => {
    const { id } = await courseWith('week-dates').catch(() => courseWith('fill-in-unfilled'))
    await page.goto(`${bed.address}/courses/${id}`)
    await page.getByRole('button', { name: 'next Monday' }).click()
    await page.waitForURL(/asOf=2026-09-21/)
    await page.getByText(/requirements met/).waitFor()
    await page.getByRole('button', { name: 'opening day' }).click()
    await page.waitForURL(/asOf=2026-08-31/)
    await page.getByText(/requirements met/).waitFor()
  })
})

describe('the pairing', () => {
  it('is stepped through with the keyboard, says why, and follows the strand to the other side', async () => {
    await page.goto(`${bed.address}/courses/1?show=pairing&all=1`)
    await page.locator('[data-side="left"]').first().focus()
    for (const key of ['ArrowDown', 'ArrowDown', 'ArrowDown']) await page.keyboard.press(key)
    const left = (await page.locator('[data-side="left"]:focus').getAttribute('title')) ?? ''
    expect(left).not.toBe('')
    await page.keyboard.press('ArrowRight')
    expect(await page.locator('[data-side="right"]:focus').count()).toBe(1)
    await page
      .getByRole('complementary', { name: 'About the pair' })
      .getByText(/What deployment made/)
      .waitFor()
    await page.keyboard.press('ArrowLeft')
    expect(await page.locator('[data-side="left"]:focus').getAttribute('title')).toBe(left)
  })
  it('is unjoined by hand, joined to something else, and forgotten again', async () => {
    await page.goto(`${bed.address}/courses/1?show=pairing&all=1`)
    await page
      .getByRole('button', { name: /Week 2 checklist/ })
      .first()
      .click()
    const panel = page.getByRole('complementary', { name: 'About the pair' })
    await panel.getByRole('button', { name: 'Not the same: unjoin' }).click()
    await panel.getByText('Found: nothing').waitFor()
    await panel.getByLabel('It is really').waitFor()
    await panel.getByRole('button', { name: 'Join' }).click()
    await panel.getByText(/Joined by hand/).waitFor()
    await page.goto(`${bed.address}/courses/1?show=pairing&all=1`)
    await panel.getByRole('button', { name: 'forget' }).first().click()
    await panel.getByText('Said by hand').waitFor({ state: 'detached' })
  })
  it('answers the pointer within a frame or two in a course of 300 items', async () => {
    await page.goto(`${bed.address}/courses/1?show=pairing&all=1`)
    await page.locator('[data-row]').first().waitFor()
    const rows = await page.locator('[data-row]').count()
    expect(rows).toBeGreaterThan(150)
    const moves = 60
    const milliseconds =
      (await processorMilliseconds(
        page,
        `new Promise((done) => {
          const rows = [...document.querySelectorAll('[data-row]')].slice(0, ${moves})
          const step = () => {
            const row = rows.shift()
            if (!row) return done()
            row.dispatchEvent(new PointerEvent('pointerover', { bubbles: true }))
            requestAnimationFrame(step)
          }
          step()
        })`,
      )) / moves
    expect(milliseconds).toBeGreaterThan(0.1)
    expect(milliseconds).toBeLessThan(50)
  })
})

describe('a page with its departures', () => {
  it('marks them in place and says beside it what the template expects', async () => {
    const detail = await courseWith('fixed-text-altered')
    const item = detail.result?.findings.find((finding) => finding.rule === 'fixed-text-altered')
      ?.places[0]?.place.foundId
    await page.goto(`${bed.address}/courses/${detail.id}?show=pages&page=${item}`)
    const frame = page.frameLocator('iframe')
    const remark = frame.getByRole('complementary').filter({ hasText: 'Changed from what' }).first()
    await remark.getByText(/^The template expects: /).waitFor()
    const inMargin = await remark.boundingBox()
    const seen = await frame.locator('.mark .seen').first().boundingBox()
    expect(inMargin?.x).toBeGreaterThan((seen?.x ?? 0) + (seen?.width ?? 0))
    await page
      .getByRole('list', { name: 'Findings of this page' })
      .getByRole('listitem')
      .first()
      .waitFor()
    expect(await violations(page)).toEqual([])
    await page.getByRole('button', { name: 'as students see it' }).click()
    await page
      .frameLocator('iframe')
      .getByText(/Welcome/)
      .first()
      .waitFor()
    expect(
      await page.frameLocator('iframe').getByText('Changed from what the template says').count(),
    ).toBe(0)
  })
})

describe('mends in all courses', () => {
  it('are chosen by rule, planned, read course by course, approved and made', async () => {
    await page.goto(`${bed.address}/conformance/mends`)
    await page.getByRole('checkbox', { name: /Work to hand in has a due date/ }).check()
    await page.getByRole('button', { name: /^Plan \d+ mends?/ }).click()
    await page
      .getByText(/is due 2026/)
      .first()
      .waitFor()
    await page.getByRole('button', { name: 'Approve and run' }).click()
    await page
      .getByText(/[1-9] mended/)
      .first()
      .waitFor()
  })
})

describe('what the pages of a course ask', () => {
  it('is answered here from the finding that tells it, written where it is asked, and found by the next check', async () => {
    const { id, result } = await courseWith('fill-in-unfilled')
    const before = result?.findings.find(({ rule }) => rule === 'fill-in-unfilled')
    await page.goto(`${bed.address}/courses/${id}`)
    await page.getByRole('button', { name: 'fill in here' }).first().click()
    await page.getByRole('heading', { name: 'Needed now' }).waitFor()
    expect(await violations(page)).toEqual([])
    const field = page.locator('textarea').first()
    const prompt = (await field.getAttribute('id')) ?? ''
    const says = (await page.locator(`label[for="${prompt}"]`).textContent()) ?? ''
    // By keyboard alone: typed, left, and pressed.
    await field.focus()
    await page.keyboard.type('We meet at the east slip, at ten, and bring a pencil.')
    const put = page.getByRole('button', { name: 'Put 1 answer into the course' })
    await put.focus()
    await page.keyboard.press('Enter')
    await page.getByText(/^1 written/).waitFor()
    const detail = (await (
      await page.request.get(`${bed.address}/api/courses/${id}`)
    ).json()) as CourseDetail
    const snapshot = JSON.stringify(await bed.connector(`/courses/${detail.platformId}/snapshot`))
    expect(snapshot).toContain('We meet at the east slip, at ten, and bring a pencil.')
    expect(says).not.toBe('')
    const places = (of: CourseDetail['result']) =>
      of?.findings
        .filter(({ rule }) => rule === 'fill-in-unfilled')
        .reduce((sum, finding) => sum + finding.places.length, 0) ?? 0
    expect(before).toBeTruthy()
    expect(places(detail.result)).toBe(places(result) - 1)
    // What is written is no answer that waits any more.
    await page.getByText('Nothing is written yet.').waitFor()
  })
  it('is answered with a file, which students open from the page', async () => {
    const courses = (await (
      await page.request.get(`${bed.address}/api/courses`)
    ).json()) as CourseSummary[]
    const asks = async ({ id }: CourseSummary) => {
      const { pages } = (await (
        await page.request.get(`${bed.address}/api/courses/${id}/asked`)
      ).json()) as AskedOfCourse
      return pages.find(({ things }) => things.some(({ type }) => type === 'file'))
    }
    const asked = await Promise.all(courses.map(asks))
    const course = courses[asked.findIndex(Boolean)]
    await page.goto(`${bed.address}/courses/${course?.id}?show=fill-in`)
    await page.getByText('What may stay open').click()
    const field = page.getByLabel(/^File for “Put in your own plan/)
    await field.setInputFiles({ name: 'no plan.pdf', mimeType: '', buffer: Buffer.from('a') })
    await page.getByText(/“no plan.pdf” was not put in/).waitFor()
    const plan = fileURLToPath(new URL('../demo/files/study-planner.pdf', import.meta.url))
    await field.setInputFiles(plan)
    await page.getByText(/^study-planner\.pdf, [1-9]/).waitFor()
    expect(await violations(page)).toEqual([])
    await page.getByRole('button', { name: 'Put 1 answer into the course' }).click()
    await page.getByText(/^1 written/).waitFor()
    const on = asked.find(Boolean)
    const there = await (
      await page.request.get(
        `${bed.platformAddress}/courses/${course?.platformId}/items/${on?.item}`,
      )
    ).text()
    const [, address = ''] = /href="([^"]+)"[^>]*>study-planner\.pdf</.exec(there) ?? []
    const opened = await page.request.get(new URL(address, bed.platformAddress).href)
    expect((await opened.body()).equals(readFileSync(plan))).toBe(true)
  })
})
