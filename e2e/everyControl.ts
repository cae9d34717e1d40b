import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import type { Browser, Page } from 'playwright-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import {
  may,
  routeNamed,
  routeNames,
  type CourseSummary,
  type Role,
  type RunSummary,
} from '@wickerframe/contract'
import { openBrowser } from '@wickerframe/scripts/browser'
import { root } from '@wickerframe/scripts/processes'
import { violations } from './axe.ts'
import { signInWith } from './signIn.ts'
import { startTestBed, type TestBed } from './testBed.ts'

let bed: TestBed
let browser: Browser
let run: number

/** Every address of the application, with what it needs, as its own table has them. */
const screens = [
  ...readFileSync(join(root, 'web/src/screens/screens.tsx'), 'utf8').matchAll(
    /path: '([^']+)',(?:\s*name: '[^']+',)?\s*needs: '([^']+)'/g,
  ),
].map(([, path = '', needs = '']) => ({ path, needs: needs as Parameters<typeof may>[1] }))

const courseTabs = ['mend', 'pairing', 'pages', 'calendar', 'history']
const workbenchViews = [
  'outline',
  'versions',
  'comments',
  'layer',
  'grading',
  'outcomes',
  'settings',
  'shared',
  'proofreading',
]
/** The addresses of a screen as somebody may open them by hand. */
const addressesOf = (path: string, role: Role, course: CourseSummary | undefined): string[] => {
  if (path === '/courses/:id')
    return courseTabs.map((tab) => `/courses/${course?.id ?? 1}?show=${tab}`)
  if (path === '/templates/:key')
    return workbenchViews.flatMap((view) =>
      // A contributor has one template that is theirs to edit, and another that is not.
      (role === 'contributor'
        ? ['harbour-standard', 'navigation-programme']
        : ['navigation-programme']
      ).map((key) => `/templates/${key}?view=${view}`),
    )
  return [path.replace(':run', String(run)).replace(':code', 'autumn-2026')]
}

/** What a page asked of the server that whoever is signed in may not. */
interface Asked {
  posts: Set<string>
  refused: Set<string>
}
const routeAt = (method: string, address: string) => {
  const { pathname } = new URL(address)
  const found = routeNames
    .map(routeNamed)
    .filter(
      (route) =>
        route.method === method.toLowerCase() &&
        new RegExp(`^${route.path.replace(/:\w+/g, '[^/]+')}$`).test(pathname),
    )
  // `/api/courses/made` is not the course “made”.
  return found.find(({ path }) => path === pathname) ?? found[0]
}
/** What is posted is noted and goes nowhere; what is read and refused is noted. */
const watch = async (page: Page): Promise<Asked> => {
  const asked: Asked = { posts: new Set(), refused: new Set() }
  await page.route('**/api/**', async (route) => {
    const request = route.request()
    if (request.method() === 'GET') return route.continue()
    asked.posts.add(`${request.method()} ${request.url()}`)
    await route.fulfill({
      status: 409,
      contentType: 'application/problem+json',
      body: JSON.stringify({ type: 'x', title: 'x', status: 409, detail: 'noted' }),
    })
  })
  page.on('response', (response) => {
    if (response.status() === 403) asked.refused.add(response.url())
  })
  return asked
}

const controls = 'main button:visible:enabled, [role=dialog] button:visible:enabled'
/** One control of each name: numbers and names in quotes apart, a list’s rows are one. */
const namesOf = (page: Page): Promise<string[]> =>
  page
    .locator(controls)
    .evaluateAll((buttons) => [
      ...new Set(
        buttons.map((button) =>
          (button.getAttribute('aria-label') ?? button.textContent ?? '')
            .replace(/\d+/g, '#')
            .trim(),
        ),
      ),
    ])
const press = (page: Page, name: string): Promise<boolean> =>
  page.locator(controls).evaluateAll((buttons, wanted) => {
    const found = buttons.find(
      (button) =>
        (button.getAttribute('aria-label') ?? button.textContent ?? '')
          .replace(/\d+/g, '#')
          .trim() === wanted,
    )
    if (found instanceof HTMLElement) found.click()
    return found !== undefined
  }, name)
const settled = async (page: Page) => {
  try {
    await page.locator('main h1').first().waitFor()
    await page.waitForFunction(() => !/Reading [^.]* …/.test(document.body.innerText))
  } catch (cause) {
    const shown = await page.evaluate(() => document.body.innerText.slice(0, 300))
    throw new Error(`${page.url()} does not come to rest; it shows: ${shown}`, { cause })
  }
}
/** Ticks and chooses what can be, so that the buttons which wait for that can be pressed; the first few of each kind. */
const fillIn = (page: Page): Promise<void> =>
  page.evaluate((most) => {
    const usable = <T extends HTMLInputElement | HTMLSelectElement>(selector: string): T[] =>
      [...document.querySelectorAll<T>(selector)]
        .filter(
          (field) =>
            !field.matches(':disabled, [inert] *, [readonly]') &&
            field.checkVisibility() &&
            getComputedStyle(field).pointerEvents !== 'none',
        )
        .slice(0, most)
    for (const box of usable<HTMLInputElement>('main input[type=checkbox]')) box.click()
    for (const choice of usable<HTMLSelectElement>('main select')) {
      const last = [...choice.options].at(-1)?.value
      if (!last) continue
      choice.value = last
      choice.dispatchEvent(new Event('change', { bubbles: true }))
    }
  }, 6)
const mostControls = 10

/** Goes where a link would lead, and waits until what was shown before is gone. */
const goWithin = async (page: Page, to: string): Promise<void> => {
  await page.evaluate((path) => {
    document.querySelector('main')?.setAttribute('data-before', '')
    window.history.pushState(null, '', path)
    window.dispatchEvent(new PopStateEvent('popstate'))
  }, to)
  await page.locator('main:not([data-before])').waitFor()
}
/** Opens a screen afresh within the page, as a link does: the program itself is not loaded again. */
const openWithin = async (page: Page, address: string): Promise<void> => {
  await goWithin(page, address.startsWith('/account') ? '/courses' : '/account')
  await goWithin(page, address)
  await settled(page)
  await fillIn(page)
}

/** Presses every control of a page that can be pressed, and those of the dialogs that they open. */
const pressAll = async (page: Page, address: string): Promise<number> => {
  const open = () => openWithin(page, address)
  await open()
  let pressed = 0
  for (const name of (await namesOf(page)).slice(0, mostControls)) {
    if (!(await press(page, name))) {
      await open()
      if (!(await press(page, name))) continue
    }
    pressed += 1
    if ((await page.locator('[role=dialog]').count()) > 0) {
      for (const inside of await namesOf(page)) await press(page, inside)
      await open()
    }
    if (!page.url().startsWith(`${bed.address}${address.split('?')[0]}`)) await open()
  }
  return pressed
}

/** Walks every screen as these people, pressing every control: none that would be refused is offered. */
export const pressEverythingAs = (people: readonly (readonly [Role, string])[]): void => {
  beforeAll(async () => {
    bed = await startTestBed({ courses: 24 })
    browser = await openBrowser()
    const designer = await bed.as('designer@kestrelsound.example')
    run = (await designer.get<RunSummary[]>('/api/rollouts')).body[0]?.id ?? 0
    // So that there is a course in the contributor’s layer.
    const free = (await designer.get<CourseSummary[]>('/api/courses')).body.find(
      (course) => course.template === null,
    )
    await designer.post(`/api/courses/${free?.id}/version`, {
      template: 'navigation-programme',
      version: 1,
    })
  })
  afterAll(async () => {
    await browser?.close()
    await bed.stop()
  })

  describe.each(people)('a %s', (role, email) => {
    it(
      'finds no control that would be refused, on any screen; what is not theirs says for whom it is',
      { timeout: 800_000 },
      async () => {
        expect(screens.length).toBeGreaterThan(15)
        const client = await bed.as(email)
        const course = (await client.get<CourseSummary[]>('/api/courses')).body[0]
        expect(course).toBeDefined()
        const page = await signInWith(browser, bed.address, email)
        const asked = await watch(page)
        let pressed = 0
        for (const { path, needs } of screens) {
          for (const address of addressesOf(path, role, course)) {
            if (may({ roles: [role] }, needs)) {
              pressed += await pressAll(page, address)
              expect([
                address,
                await page.getByRole('heading', { name: /^This is for/ }).count(),
              ]).toEqual([address, 0])
              continue
            }
            await page.goto(`${bed.address}${address}`)
            await page.getByRole('heading', { name: /^This is for/ }).waitFor()
            expect(await page.locator('main button').count()).toBe(0)
            asked.refused.clear()
            break
          }
          const forbidden = [...asked.posts].filter((said) => {
            const [method = '', url = ''] = said.split(' ')
            const route = routeAt(method, url)
            return !route || (route.may !== 'anyone' && !may({ roles: [role] }, route.may))
          })
          expect({ path, forbidden, refused: [...asked.refused] }).toEqual({
            path,
            forbidden: [],
            refused: [],
          })
        }
        expect(pressed).toBeGreaterThan(20)
        await page.context().close()
      },
    )

    it('is led back from what is not theirs', async () => {
      const page = await signInWith(browser, bed.address, email)
      await page.goto(`${bed.address}/names`)
      await page
        .getByRole('heading', { name: 'This is for designers and administrators' })
        .waitFor()
      expect(await violations(page)).toEqual([])
      await page.getByRole('link', { name: 'Back to your own first page' }).click()
      await page.waitForURL(role === 'instructor' ? /\/courses$/ : /\/today$/)
      await page.context().close()
    })
  })
}
