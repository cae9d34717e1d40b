/** Takes the pictures of docs/screenshots from a running demo: npx tsx scripts/screenshots.ts http://127.0.0.1:4310 [name …] */
import { mkdirSync } from 'node:fs'
import { join } from 'node:path'
import type { Page } from 'playwright-core'
import type { CourseSummary, TemplateDraft } from '@wickerframe/contract'
import { everyItem } from '@wickerframe/core'
import { demoPassword } from '@wickerframe/demo'
import { openBrowser } from './browser.ts'
import { root } from './processes.ts'

const [address = 'http://127.0.0.1:4310', ...only] = process.argv.slice(2)
const platform = process.env['PLATFORM_URL'] ?? 'http://127.0.0.1:4320'
const folder = process.env['SHOTS'] ?? join(root, 'docs/screenshots')
mkdirSync(folder, { recursive: true })

const courseNamed = async (page: Page, title: string): Promise<string> => {
  const courses = (await (await page.request.get(`${address}/api/courses`)).json()) as {
    id: number
    title: string
    check: { readiness: string } | null
  }[]
  return String(
    courses.find((course) => course.title === title && course.check?.readiness === 'not-ready')
      ?.id ?? courses[0]?.id,
  )
}

/** Releases the Harbour Standard's draft with another promise, unless that is done, and plans it for its courses. @returns the run */
const planUpdate = async (page: Page): Promise<number> => {
  const get = async <T>(path: string): Promise<T> =>
    (await (await page.request.get(address + path)).json()) as T
  const post = async <T>(path: string, data: object): Promise<T> =>
    (await (
      await page.request.post(address + path, { data, headers: { 'x-wickerframe': '1' } })
    ).json()) as T
  const { draft, draftRevision, versions } = await get<TemplateDraft>(
    '/api/templates/harbour-standard',
  )
  if (versions.length === 1) {
    const welcome = everyItem(draft).find((item) => item.key === 'welcome')
    const promise = welcome?.blocks.find((block) => block.key === 'answer-promise')
    if (promise?.kind === 'fixed-text')
      await post('/api/templates/harbour-standard/edits', {
        revision: draftRevision,
        edits: [
          {
            edit: 'set-block',
            part: 'welcome',
            block: promise.key,
            field: 'html',
            was: promise.html,
            value: promise.html.replace(
              'within one working day',
              'within two working days, by e-mail or in the discussion',
            ),
          },
        ],
      })
    await post('/api/templates/harbour-standard/release', {
      revision: draftRevision + 1,
      note: 'Answers within two days',
    })
  }
  const courses = (await get<CourseSummary[]>('/api/courses')).filter(
    (course) => course.template?.key === 'harbour-standard',
  )
  const { run } = await post<{ run: number }>('/api/rollouts', {
    order: { mode: 'version', template: 'harbour-standard', version: 2 },
    courses: courses.map((course) => course.id),
  })
  return run
}

const signIn = async (page: Page, email: string): Promise<void> => {
  await page.goto(address)
  await page.getByLabel('E-mail').fill(email)
  await page.getByLabel('Password').fill(demoPassword)
  await page.getByRole('button', { name: 'Sign in' }).click()
  await page.getByRole('navigation').waitFor()
}

const views: Record<string, (page: Page) => Promise<void>> = {
  today: async (page) => void (await page.goto(`${address}/today`)),
  workbench: async (page) =>
    void (await page.goto(`${address}/templates/harbour-standard?part=week-overview`)),
  page: async (page) => {
    await page.goto(`${address}/templates/harbour-standard/pages/week-overview`)
    await page.getByText(/^made from/).waitFor()
    await page.locator('[data-block="about"] [role="group"]').focus()
    await page.keyboard.press('ArrowUp')
  },
  'new-template': async (page) => {
    await page.goto(`${address}/templates/new?way=model&course=1`)
    await page.getByText('What repeats').waitFor()
  },
  library: async (page) => {
    await page.goto(`${address}/library?kind=image&open=banner-evening-sail`)
    await page.getByRole('article').waitFor()
  },
  'fill-in': async (page) => {
    await page.goto(
      `${address}/courses/${await courseNamed(page, 'Plankton Methods')}?show=fill-in`,
    )
    await page.locator('textarea').first().fill('Thursdays two to four, in the plankton lab.')
  },
  'course-pairing': async (page) =>
    void (await page.goto(
      `${address}/courses/${await courseNamed(page, 'Refrigeration Afloat')}?show=pairing`,
    )),
  'course-mend': async (page) =>
    void (await page.goto(
      `${address}/courses/${await courseNamed(page, 'Refrigeration Afloat')}?show=mend`,
    )),
  'course-pages': async (page) =>
    void (await page.goto(
      `${address}/courses/${await courseNamed(page, 'Refrigeration Afloat')}?show=pages`,
    )),
  weave: async (page) => void (await page.goto(`${address}/conformance`)),
  'new-rollout': async (page) =>
    void (await page.goto(`${address}/rollouts/new?template=harbour-standard&courses=30.31`)),
  'rollout-plan': async (page) => {
    await page.goto(`${address}/rollouts/${await planUpdate(page)}`)
    await page.getByText('Plans that look alike').waitFor({ timeout: 60_000 })
    const conflict = page.getByRole('listitem').filter({ hasText: 'to decide in each' }).first()
    await conflict.getByRole('button', { name: /^open the/ }).click({ timeout: 60_000 })
    await conflict.getByRole('button', { name: 'see the differences' }).first().click()
    await page.getByRole('region', { name: /^Plan for/ }).waitFor()
    await page.evaluate(() =>
      document.querySelector('[aria-label^="Plan for"]')?.scrollIntoView({ block: 'center' }),
    )
  },
  'next-term': async (page) => void (await page.goto(`${address}/rollouts/next-term`)),
  rollout: async (page) => void (await page.goto(`${address}/rollouts/2`)),
  term: async (page) => void (await page.goto(`${address}/terms/autumn-2026`)),
  names: async (page) => {
    await page.goto(`${address}/names?template=harbour-standard&part=week`)
    await page.getByText('Formats found in the list').waitFor()
    await page.getByRole('button', { name: /^Mendable/ }).click()
  },
  'course-calendar': async (page) => {
    await page.goto(
      `${address}/courses/${await courseNamed(page, 'Refrigeration Afloat')}?show=calendar`,
    )
    await page.getByLabel('Divide evenly into').selectOption('4')
  },
  'practice-platform': async (page) => {
    await page.goto(`${platform}/courses/kc-1001`)
    await page.getByRole('link', { name: 'NAV 110 home', exact: true }).first().click()
    await page.getByText('The route through this course').first().waitFor()
  },
  people: async (page) => {
    await page.context().clearCookies()
    await signIn(page, 'administrator@kestrelsound.example')
    await page.goto(`${address}/people`)
    await page.getByRole('table').waitFor()
  },
}

const browser = await openBrowser()
const context = await browser.newContext({
  viewport: { width: 1280, height: 800 },
  timezoneId: 'America/Halifax',
  reducedMotion: 'reduce',
})
const page = await context.newPage()
page.on('pageerror', (cause) => console.error('page error:', cause.message))
page.on(
  'console',
  (message) => message.type() === 'error' && console.error('console:', message.text()),
)
await signIn(page, 'designer@kestrelsound.example')
for (const [name, show] of Object.entries(views)) {
  if (only.length > 0 && !only.includes(name)) continue
  await show(page)
  await page.waitForLoadState('networkidle')
  await page.waitForTimeout(300)
  await page.screenshot({ path: join(folder, `${name}.png`) })
  console.log(name)
}
await browser.close()
