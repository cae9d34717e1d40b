import type { Browser, Page } from 'playwright-core'
import { demoPassword } from '@wickerframe/demo'

/** Signs somebody in where the page asks for it. */
export const fillSignIn = async (page: Page, email: string): Promise<void> => {
  await page.getByLabel('E-mail').fill(email)
  await page.getByLabel('Password').fill(demoPassword)
  await page.getByRole('button', { name: 'Sign in' }).click()
  await page.getByRole('navigation').waitFor()
}

/** A page of somebody who is signed in, in a context of its own, 1280 by 800. */
export const signInWith = async (
  browser: Browser,
  address: string,
  email: string,
): Promise<Page> => {
  const context = await browser.newContext({
    viewport: { width: 1280, height: 800 },
    permissions: ['clipboard-read', 'clipboard-write'],
  })
  const page = await context.newPage()
  // Long: what does not come at all is found all the same, and a busy machine is no fault.
  page.setDefaultTimeout(120_000)
  await page.goto(address)
  await fillSignIn(page, email)
  return page
}
