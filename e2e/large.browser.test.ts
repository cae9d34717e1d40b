import { request } from 'node:http'
import type { Browser, Page } from 'playwright-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Conformance } from '@wickerframe/contract'
import { demoToday } from '@wickerframe/demo'
import { openBrowser } from '@wickerframe/scripts/browser'
import { violations } from './axe.ts'
import { growTo } from './largeCollege.ts'
import { workUntil } from './rollouts.ts'
import { signInWith } from './signIn.ts'
import { startTestBed, type Client, type TestBed } from './testBed.ts'

/** As many as the demo has, and as a large college. */
const sizes = [48, 2000]
let bed: TestBed
let browser: Browser
let page: Page
let designer: Client
const pageErrors: string[] = []

beforeAll(async () => {
  bed = await startTestBed({ courses: 24 })
  designer = await bed.as('designer@kestrelsound.example')
  const { body } = await designer.post<{ run: number }>('/api/checks', { asOf: demoToday })
  await workUntil(bed, designer, body.run, 'done')
  browser = await openBrowser()
  page = await signInWith(browser, bed.address, 'designer@kestrelsound.example')
  page.on('pageerror', (cause) => pageErrors.push(cause.message))
})
afterAll(async () => {
  await browser?.close()
  await bed.stop()
})

const nodes = () => page.evaluate<number>('document.querySelectorAll("*").length')

describe.each(sizes)('with %s courses', (size) => {
  beforeAll(() => growTo(bed.pool, size))
  it.each([
    ['today', '/today', /courses? needs? someone today/],
    ['the weave', '/conformance', new RegExp(`of ${size}`)],
    ['day by day', '/conformance/days', /All courses/],
    ['the next four weeks', '/conformance/ahead', /musts? in \d+ courses?/],
    ['waivers', '/conformance/waivers', /In force/],
    ['how the rules fared', '/conformance/rules', /^waived$/],
    ['by schedule', '/conformance/schedules', /schedule/i],
    ['mends in all courses', '/conformance/mends', /places? in \d+ courses?/],
    ['courses', '/courses', new RegExp(String(size))],
    ['a course', '/courses/1', /What to mend/],
  ])(
    '%s can be read by everybody in both themes, and is no longer than it must be',
    async (_, path, text) => {
      await page.goto(bed.address + path)
      await page.getByText(text).first().waitFor()
      for (const colorScheme of ['light', 'dark'] as const) {
        await page.emulateMedia({ colorScheme })
        expect([colorScheme, await violations(page)]).toEqual([colorScheme, []])
      }
      await page.emulateMedia({ colorScheme: null })
      expect(await nodes()).toBeLessThan(5000)
      expect(pageErrors).toEqual([])
    },
  )
})

describe('the weave of two thousand courses', () => {
  it('is under 500 kB on the wire', async () => {
    const bytes = await new Promise<number>((resolve, reject) => {
      request(
        `${bed.address}/api/conformance`,
        { headers: { cookie: designer.cookie, 'accept-encoding': 'gzip' } },
        (answer) => {
          let sum = 0
          answer.on('data', (chunk: Buffer) => (sum += chunk.length))
          answer.on('end', () => resolve(sum))
        },
      )
        .on('error', reject)
        .end()
    })
    expect(bytes).toBeGreaterThan(10_000)
    expect(bytes).toBeLessThan(500_000)
  })
  it('has only what is in sight on the page, and is walked to its very end by keys', async () => {
    const { rows } = (await designer.get<Conformance>('/api/conformance')).body
    const bands = [...new Set(rows.map(({ department }) => department))]
    await page.goto(`${bed.address}/conformance?open=${bands.join('~')}&weeks=all&order=code`)
    const grid = page.getByRole('treegrid')
    await grid.focus()
    expect(Number(await grid.getAttribute('aria-rowcount'))).toBe(rows.length + bands.length + 1)
    await page.keyboard.press('Control+End')
    const place = grid.getByRole('gridcell')
    const last =
      rows
        .map(({ code }) => code)
        .sort((a, b) => (a < b ? -1 : 1))
        .at(-1) ?? ''
    await expect.poll(() => place.textContent()).toContain(last)
    expect(await nodes()).toBeLessThan(1500)
    // What is walked to is in sight, downwards and sideways.
    const [shown, within] = await page.evaluate<[DOMRect, DOMRect]>(
      `['[role=treegrid] svg rect.fill-tide-soft', '[role=treegrid]'].map((which) => document.querySelector(which).getBoundingClientRect().toJSON())`,
    )
    expect(shown.right).toBeLessThanOrEqual(within.right)
    expect(shown.bottom).toBeLessThanOrEqual(within.bottom)
    await page.keyboard.press('Home')
    await expect
      .poll(() => page.evaluate<number>(`document.querySelector('[role=treegrid]').scrollLeft`))
      .toBe(0)
  })
  it('is no wider on paper than the sheet, however many columns there are', async () => {
    await page.goto(`${bed.address}/conformance?weeks=all`)
    await page.getByRole('treegrid').waitFor()
    await page.setViewportSize({ width: 700, height: 1000 })
    await page.emulateMedia({ media: 'print' })
    const [right, wide] = await page.evaluate<[number, number]>(
      `[document.querySelector('[role=treegrid] svg[data-line]').getBoundingClientRect().right, innerWidth]`,
    )
    await page.emulateMedia({ media: null })
    await page.setViewportSize({ width: 1280, height: 800 })
    expect(right).toBeLessThanOrEqual(wide)
  })
  it('is asked for what is open only, and by instructor', async () => {
    await page.goto(`${bed.address}/conformance?by=instructor`)
    await page.getByRole('treegrid').waitFor()
    const lines = async () => Number(await page.getByRole('treegrid').getAttribute('aria-rowcount'))
    const all = await lines()
    await page.getByRole('button', { name: 'only what is open' }).click()
    await page.getByRole('treegrid').waitFor()
    expect(await lines()).toBeLessThanOrEqual(all)
    expect(await nodes()).toBeLessThan(1500)
    expect(pageErrors).toEqual([])
  })
})
