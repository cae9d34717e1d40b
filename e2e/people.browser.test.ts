import { spawnSync } from 'node:child_process'
import type { Browser, Page } from 'playwright-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { CourseSummary } from '@wickerframe/contract'
import { startIdentityProvider } from '@wickerframe/identity/provider'
import { openBrowser } from '@wickerframe/scripts/browser'
import { bundle } from '@wickerframe/scripts/bundle'
import { violations } from './axe.ts'
import { signInWith } from './signIn.ts'
import { startTestBed, type TestBed } from './testBed.ts'

let bed: TestBed
let browser: Browser
let administrator: Page

beforeAll(async () => {
  bed = await startTestBed({ courses: 6 })
  browser = await openBrowser()
  administrator = await signInWith(browser, bed.address, 'administrator@kestrelsound.example')
})
afterAll(async () => {
  await browser?.close()
  await bed.stop()
})

const password = 'a kettle under the pier'
/** A browser of somebody who was never here. */
const newcomer = async (): Promise<Page> => (await browser.newContext()).newPage()
/** Follows a link and sets a password, with the keyboard alone. */
const comeIn = async (page: Page, link: string): Promise<void> => {
  await page.goto(link)
  await page.getByLabel('New password').focus()
  await page.keyboard.type(password)
  await page.keyboard.press('Enter')
  await page.getByRole('navigation', { name: 'Main' }).waitFor()
}

describe('a new college', () => {
  it('lets its first administrator in by what a command prints, and they invite the next', async () => {
    // A schema that nobody has ever signed in to.
    const { address, process: server } = await bed.startServerWith({
      WICKERFRAME_DATABASE: 'wickerframe_new',
    })
    const printed = spawnSync(
      process.execPath,
      [
        await bundle('server/src/invitePeople.ts'),
        'invite',
        'petra@kestrelsound.example',
        '--name',
        'Petra',
      ],
      {
        env: {
          PATH: process.env['PATH'],
          ...bed.environment,
          WICKERFRAME_DATABASE: 'wickerframe_new',
          WICKERFRAME_PUBLIC_URL: address,
        },
        encoding: 'utf8',
        timeout: 60_000,
      },
    )
    expect([printed.status, printed.stderr]).toEqual([0, ''])
    const link = /http\S+welcome#\S+/.exec(printed.stdout)?.[0] ?? ''
    const petra = await newcomer()
    await comeIn(petra, link)
    await petra.goto(`${address}/people`)
    await petra.getByRole('button', { name: 'Invite somebody' }).click()
    const dialog = petra.getByRole('dialog')
    await dialog.getByLabel('Name').fill('Maud Ferreira')
    await dialog.getByLabel('E-mail').fill('maud@kestrelsound.example')
    await dialog.getByRole('checkbox', { name: /^designer/ }).check()
    await dialog.getByRole('button', { name: 'Make the link' }).click()
    const made = await petra.getByRole('textbox', { name: /^Send it to maud/ }).inputValue()
    const maud = await newcomer()
    // The link leads to the public address, which is that of the first server here.
    await comeIn(maud, made.replace(bed.address, address))
    await maud.goto(`${address}/templates`)
    await maud.getByRole('heading', { name: 'Templates', level: 1 }).waitFor()
    await maud.goto(`${address}/people`)
    await maud.getByRole('heading', { name: 'This is for administrators' }).waitFor()
    await server.stop()
  })
})

describe('people', () => {
  it('can be read and used by everybody: the list, one of them, an invitation, one’s own account', async () => {
    await administrator.goto(`${bed.address}/people`)
    await administrator.getByRole('table').waitFor()
    expect(await violations(administrator)).toEqual([])
    await administrator.getByRole('button', { name: 'Ingrid Okafor' }).click()
    await administrator.getByRole('dialog').waitFor()
    expect(await violations(administrator)).toEqual([])
    await administrator.keyboard.press('Escape')
    await administrator.goto(`${bed.address}/account`)
    await administrator.getByText('Where you are signed in').waitFor()
    expect(await violations(administrator)).toEqual([])
    const stranger = await newcomer()
    await stranger.goto(bed.address)
    await stranger.getByRole('button', { name: 'Ask for one' }).click()
    expect(await violations(stranger)).toEqual([])
  })

  it('lose what they may do at once when it is taken, and come back when they are let in again', async () => {
    const reviewer = await signInWith(browser, bed.address, 'reviewer@kestrelsound.example')
    await administrator.goto(`${bed.address}/people?search=reviewer`)
    await administrator.getByRole('button', { name: 'Halima Strand' }).click()
    await administrator.getByRole('button', { name: 'Deactivate' }).click()
    await administrator.getByText('Nobody signs in as them any more').waitFor()
    await reviewer.goto(`${bed.address}/today`)
    await reviewer.getByRole('button', { name: 'Sign in' }).waitFor()
    await administrator.getByRole('button', { name: 'Let them sign in again' }).click()
    await administrator.getByText('They may sign in again').waitFor()
    await signInWith(browser, bed.address, 'reviewer@kestrelsound.example')
  })

  it('ask for an account, are let in, and choose how it looks', async () => {
    const maud = await newcomer()
    await maud.goto(bed.address)
    await maud.getByRole('button', { name: 'Ask for one' }).click()
    await maud.getByLabel('Your name').fill('Maud Ferreira')
    await maud.getByLabel('Your e-mail address at the institution').fill('maud@x.example')
    await maud.getByRole('button', { name: 'Ask for an account' }).click()
    await maud.getByText('An administrator reads what you wrote').waitFor()
    await administrator.goto(`${bed.address}/people`)
    await administrator.getByText('Maud Ferreira').click()
    await administrator.getByRole('button', { name: 'Let them in' }).click()
    const link = await administrator.getByRole('textbox', { name: /^Send it/ }).inputValue()
    await comeIn(maud, link)
    await maud.goto(`${bed.address}/account`)
    const background = () =>
      maud.evaluate(() => getComputedStyle(document.documentElement).backgroundColor)
    const before = await background()
    await maud.getByRole('button', { name: 'dark' }).click()
    await maud.waitForFunction(
      (was) => getComputedStyle(document.documentElement).backgroundColor !== was,
      before,
    )
    await maud.reload()
    await maud.getByText('Where you are signed in').waitFor()
    expect(await background()).not.toBe(before)
    expect(await violations(maud)).toEqual([])
    await maud.goto(link)
    await maud.reload()
    await maud.getByText('this link was used already').waitFor()
  })
})

describe('the institution’s own sign-in', () => {
  it('lets somebody in who is known, and tells somebody who is not', async () => {
    const port = new URL(bed.address).port
    // Where it sends people back to is the public address: this server is the one that answers there.
    await bed.server.stop()
    const clientSecret = 'a secret of the provider and ours'
    const provider = await startIdentityProvider({
      port: 0,
      clientId: 'wickerframe',
      clientSecret,
      redirectUri: `${bed.address}/api/sign-in/outside/back`,
      people: [
        { email: 'designer@kestrelsound.example', name: 'Ingrid', groups: [] },
        { email: 'guest@x.example', name: 'A guest', groups: [] },
      ],
    })
    const server = await bed.startServerWith({
      WICKERFRAME_PORT: port,
      OIDC_ISSUER: provider.issuer,
      OIDC_CLIENT_ID: 'wickerframe',
      OIDC_CLIENT_SECRET: clientSecret,
      OIDC_NAME: 'Kestrel Sound',
    })
    try {
      const guest = await newcomer()
      await guest.goto(server.address)
      await guest.getByRole('link', { name: 'Sign in with Kestrel Sound' }).click()
      await guest.getByRole('button', { name: /^A guest/ }).click()
      await guest.getByText('here nobody has let you in yet').waitFor()
      expect(await violations(guest)).toEqual([])

      const ingrid = await newcomer()
      await ingrid.goto(server.address)
      await ingrid.getByRole('link', { name: 'Sign in with Kestrel Sound' }).click()
      await ingrid.getByRole('button', { name: /^Ingrid/ }).click()
      await ingrid.getByRole('button', { name: /^Ingrid Okafor/ }).waitFor()
      await ingrid.goto(`${server.address}/today`)
      await ingrid.getByRole('heading', { level: 1, name: 'Today' }).waitFor()
    } finally {
      await provider.stop()
    }
  })
})

describe('the people of a course', () => {
  it('are decided by a designer; who is given a module is told, and finds what is theirs', async () => {
    const designer = await signInWith(browser, bed.address, 'designer@kestrelsound.example')
    const courses: CourseSummary[] = await designer.evaluate(async () =>
      (await fetch('/api/courses')).json(),
    )
    const { id, title } = courses.find(({ platformId }) => platformId === 'kc-1002') ?? {}
    await designer.goto(`${bed.address}/courses/${id}?show=people`)
    await designer.getByRole('heading', { name: 'Who acts for which module' }).waitFor()
    expect(await violations(designer)).toEqual([])
    await designer.getByLabel('Name', { exact: true }).focus()
    for (const words of ['Tomasz Wieland', 'tomasz.wieland@kestrelsound.example']) {
      await designer.keyboard.type(words)
      await designer.keyboard.press('Tab')
    }
    await designer.keyboard.press('Tab')
    await designer.keyboard.press('Enter')
    await designer.getByLabel(/^Acts for Week 1 /).selectOption({ label: 'Tomasz Wieland' })
    await designer.getByRole('button', { name: 'Save people' }).click()
    await designer.getByText('Saved. Whoever got something new').waitFor()

    const helper = await signInWith(browser, bed.address, 'tomasz.wieland@kestrelsound.example')
    await helper.goto(`${bed.address}/courses`)
    await helper.getByRole('link', { name: new RegExp(`${title}: you help in it`) }).click()
    await helper.getByRole('tab', { name: 'People' }).click()
    await helper.getByText('Designers and the owner of the course decide on this.').waitFor()
    expect(await helper.getByRole('button', { name: 'Save people' }).count()).toBe(0)
    expect(await violations(helper)).toEqual([])
  })
})
