import { createRequire } from 'node:module'
import { readFileSync } from 'node:fs'
import type { Browser, Page } from 'playwright-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { CourseSummary } from '@wickerframe/contract'
import { demoPassword } from '@wickerframe/demo'
import { openBrowser } from '../scripts/browser.ts'
import { startTestBed, type TestBed } from './testBed.ts'

let bed: TestBed
let browser: Browser
let page: Page
const pageErrors: string[] = []
const axeSource = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8')

const signIn = async (email: string): Promise<Page> => {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
  const opened = await context.newPage()
  opened.on('pageerror', (cause) => pageErrors.push(cause.message))
  await opened.goto(bed.address)
  await opened.getByLabel('E-mail').fill(email)
  await opened.getByLabel('Password').fill(demoPassword)
  await opened.getByRole('button', { name: 'Sign in' }).click()
  await opened.getByRole('navigation').waitFor()
  return opened
}

beforeAll(async () => {
  bed = await startTestBed({ courses: 24 })
  await bed.startWorker()
  browser = await openBrowser()
  page = await signIn('designer@kestrelsound.example')
})
afterAll(async () => {
  await browser?.close()
  await bed.stop()
})

interface Violation {
  id: string
  impact: string
  nodes: { html: string }[]
}
/** Violations of WCAG 2.2 A and AA that axe-core calls serious or critical. */
const violations = async (on: Page): Promise<string[]> => {
  await on.evaluate(axeSource)
  const found = (await on.evaluate("axe.run(document, { runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'], iframes: false }).then((r) => r.violations)")) as Violation[]
  return found.filter((one) => one.impact === 'serious' || one.impact === 'critical').map((one) => `${one.id}: ${one.nodes.slice(0, 3).map((node) => node.html.slice(0, 160)).join(' | ')}`)
}

describe('every screen', () => {
  it.each([
    ['today', '/today', 'Not ready'],
    ['templates', '/templates', 'Harbour Standard'],
    ['workbench', '/templates/harbour-standard?part=week-overview', 'Fixed text'],
    ['courses', '/courses', 'Instructor'],
    ['a course, paired', '/courses/3', 'Expected by the template'],
    ['a course, findings', '/courses/3?show=findings', 'Open must'],
    ['a course, pages', '/courses/1?show=pages', 'On this page'],
    ['rollouts', '/rollouts', 'Rollouts'],
    ['a new rollout', '/rollouts/new', 'Which courses'],
    ['a rollout', '/rollouts/1', 'What came of it'],
    ['the weave', '/conformance', 'Mend first'],
  ])('%s has no serious violation and does not scroll sideways', async (_, path, text) => {
    await page.goto(bed.address + path)
    await page.getByText(text).first().waitFor()
    await page.waitForLoadState('networkidle')
    expect(await violations(page)).toEqual([])
    expect(await page.evaluate('document.documentElement.scrollWidth <= window.innerWidth')).toBe(true)
    expect(pageErrors).toEqual([])
  })
})

describe('the path of a designer', () => {
  it('edits a name in the sheet by keyboard, sees a mistake told, undoes and redoes', async () => {
    await page.goto(`${bed.address}/templates/harbour-standard?part=welcome`)
    const row = page.locator('tr[data-row="welcome"]')
    await row.focus()
    await page.keyboard.press('Enter')
    const field = page.getByLabel('Naming format of welcome')
    await field.fill('Welcome aboard {cod}')
    await page.getByText('did you mean code?').waitFor()
    await field.fill('Welcome aboard {code}')
    await page.keyboard.press('Enter')
    await row.getByText(/Welcome aboard [A-Z]{3} \d{3}/).waitFor()
    await page.getByRole('button', { name: 'Undo' }).click()
    await row.getByText(/Welcome to [A-Z]{3} \d{3}/).waitFor()
    await page.getByRole('button', { name: 'Redo' }).click()
    await page.getByText('1 change since version 1').or(page.getByText(/3 changes since version 1/)).waitFor()
  })
  it('adds a page with a fill-in, moves it by keyboard, reads it as a student, and releases the version', async () => {
    await page.getByLabel('Add a').selectOption('page')
    await page.getByRole('button', { name: 'fill-in' }).click()
    const prompt = page.getByLabel(/^Prompt/)
    await prompt.fill('Which boat do you sail?')
    await prompt.blur()
    await page.locator('tr[data-row="page"]').focus()
    await page.keyboard.press('Alt+ArrowDown')
    await page.getByRole('button', { name: 'Student' }).click()
    await page.frameLocator('iframe').getByText('Which boat do you sail?').waitFor()
    await page.getByText(/saved/).waitFor()
    await page.getByRole('button', { name: 'Release version 2' }).click()
    await page.getByText('Version 2 is released').waitFor()
    await page.getByText('draft of version 3').waitFor()
  })
  it('plans a rollout, reads the plan, approves it and watches it to its end', async () => {
    const shell = ((await (await page.request.get(`${bed.address}/api/courses`)).json()) as CourseSummary[]).find((course) => course.state === 'shell')
    await page.goto(`${bed.address}/rollouts/new?template=harbour-standard&courses=${shell?.id}`)
    await page.getByRole('button', { name: 'Show the plan' }).click()
    await page.getByRole('button', { name: 'open', exact: true }).click()
    await page.getByRole('cell', { name: 'create module' }).first().waitFor()
    await page.getByRole('button', { name: /^Approve and run/ }).click()
    await page.getByText('What came of it').waitFor()
    await page.getByText(/parts created/).waitFor({ timeout: 30_000 })
  })
  it('sees an instructor’s edit on the platform as a finding, with its evidence', async () => {
    const course = (await (await page.request.get(`${bed.address}/api/courses`)).json()).find((one: { id: number }) => one.id === 1) as { platformId: string }
    const platform = await (await browser.newContext()).newPage()
    await platform.goto(`${bed.platformAddress}/courses/${course.platformId}`)
    await platform.locator('input[name="name"][value^="Week 2"]').fill('wk 2 - marks')
    await platform.locator('form:has(input[name="name"][value^="Week 2"]) button').click()
    await platform.getByRole('heading', { name: 'wk 2 - marks' }).waitFor()
    await page.goto(`${bed.address}/courses/1?show=findings`)
    await page.getByRole('button', { name: 'Check again' }).click()
    await page.getByText('“wk 2 - marks”').first().waitFor({ timeout: 20_000 })
    await page.getByText(/does not follow the format/).first().waitFor()
  })
  it('goes from a crossing of the weave to the evidence', async () => {
    await page.goto(`${bed.address}/conformance`)
    await page.getByRole('link', { name: /open must/ }).first().click()
    await page.getByText(/^Only /).waitFor()
    await page.getByText(/^Open (must|should)/).first().waitFor()
  })
  it('looks ahead with an as-of date', async () => {
    await page.goto(`${bed.address}/conformance?asOf=2026-10-05`)
    await page.getByRole('button', { name: /^Check/ }).click()
    await page.getByText('courses ready, as of 2026-10-05').waitFor()
    await page.getByRole('link', { name: /Week 5/ }).first().waitFor({ timeout: 30_000 })
  })
})

describe('an instructor', () => {
  it('sees their own courses and what is theirs to mend, and no more', async () => {
    const own = await signIn('sunniva.drake@kestrelsound.example')
    await own.getByRole('heading', { name: 'Your courses' }).waitFor()
    await own.getByRole('row').getByRole('link').first().click()
    await own.getByText('Expected by the template').waitFor()
    expect(await own.getByRole('link', { name: 'Templates' }).count()).toBe(0)
    expect(await violations(own)).toEqual([])
    await own.goto(`${bed.address}/courses/2`)
    await own.getByRole('alert').waitFor()
  })
})
