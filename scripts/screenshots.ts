/** Takes the pictures of docs/screenshots from a running demo: npx tsx scripts/screenshots.ts http://127.0.0.1:4310 [name …] */
import { mkdirSync } from 'node:fs'
import { join } from 'node:path'
import type { Page } from 'playwright-core'
import { demoPassword } from '@wickerframe/demo'
import { openBrowser } from './browser.ts'
import { root } from './processes.ts'

const [address = 'http://127.0.0.1:4310', ...only] = process.argv.slice(2)
const platform = process.env['PLATFORM_URL'] ?? 'http://127.0.0.1:4320'
const folder = process.env['SHOTS'] ?? join(root, 'docs/screenshots')
mkdirSync(folder, { recursive: true })

const courseNamed = async (page: Page, title: string): Promise<string> => {
  const courses = (await (await page.request.get(`${address}/api/courses`)).json()) as { id: number; title: string; check: { readiness: string } | null }[]
  return String(courses.find((course) => course.title === title && course.check?.readiness === 'not-ready')?.id ?? courses[0]?.id)
}

const views: Record<string, (page: Page) => Promise<void>> = {
  today: async (page) => void (await page.goto(`${address}/today`)),
  templates: async (page) => void (await page.goto(`${address}/templates`)),
  workbench: async (page) => void (await page.goto(`${address}/templates/harbour-standard?part=week-overview`)),
  'workbench-reading': async (page) => {
    await page.goto(`${address}/templates/harbour-standard?part=home-page`)
    await page.getByRole('button', { name: 'As the instructor' }).click()
  },
  'workbench-layer': async (page) => void (await page.goto(`${address}/templates/nav-110`)),
  'new-template': async (page) => {
    await page.goto(`${address}/templates/new?way=model&course=1`)
    await page.getByText('What repeats').waitFor()
  },
  library: async (page) => void (await page.goto(`${address}/library`)),
  courses: async (page) => void (await page.goto(`${address}/courses`)),
  'course-pairing': async (page) => void (await page.goto(`${address}/courses/${await courseNamed(page, 'Refrigeration Afloat')}`)),
  'course-findings': async (page) => void (await page.goto(`${address}/courses/${await courseNamed(page, 'Refrigeration Afloat')}?show=findings`)),
  'course-pages': async (page) => void (await page.goto(`${address}/courses/${await courseNamed(page, 'Refrigeration Afloat')}?show=pages`)),
  weave: async (page) => void (await page.goto(`${address}/conformance`)),
  'new-rollout': async (page) => {
    await page.goto(`${address}/rollouts/new?template=harbour-standard&courses=30.31`)
    await page.getByRole('button', { name: 'Show the plan' }).click()
    await page.getByRole('button', { name: 'open', exact: true }).first().click()
  },
  rollout: async (page) => void (await page.goto(`${address}/rollouts/2`)),
  term: async (page) => void (await page.goto(`${address}/terms/autumn-2026`)),
  names: async (page) => {
    await page.goto(`${address}/names?template=harbour-standard&part=week`)
    await page.getByText('Formats found in the list').waitFor()
    await page.getByRole('button', { name: /^Mendable/ }).click()
  },
  'course-calendar': async (page) => {
    await page.goto(`${address}/courses/${await courseNamed(page, 'Refrigeration Afloat')}?show=calendar`)
    await page.getByLabel('Divide evenly into').selectOption('4')
  },
  renames: async (page) => {
    await page.goto(`${address}/names?template=harbour-standard&part=week`)
    await page.getByRole('button', { name: /^Plan \d+ new names/ }).click()
    await page.getByText('Approve and run').waitFor()
  },
  'practice-platform': async (page) => void (await page.goto(`${platform}/courses/kc-1001`)),
}

const browser = await openBrowser()
const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, timezoneId: 'America/Halifax', reducedMotion: 'reduce' })
const page = await context.newPage()
page.on('pageerror', (cause) => console.error('page error:', cause.message))
page.on('console', (message) => message.type() === 'error' && console.error('console:', message.text()))
await page.goto(address)
await page.getByLabel('E-mail').fill('designer@kestrelsound.example')
await page.getByLabel('Password').fill(demoPassword)
await page.getByRole('button', { name: 'Sign in' }).click()
await page.getByRole('navigation').waitFor()
for (const [name, show] of Object.entries(views)) {
  if (only.length > 0 && !only.includes(name)) continue
  await show(page)
  await page.waitForLoadState('networkidle')
  await page.waitForTimeout(300)
  await page.screenshot({ path: join(folder, `${name}.png`) })
  console.log(name)
}
await browser.close()
