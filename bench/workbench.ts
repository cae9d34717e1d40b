/**
 * Measures the workbench in Chromium, on a database of its own: typing to paint in an outline of 500 rows, an edit to
 * paint, the opening of a template, typing on a page of 60 blocks. A benchmark, not a test: it prints and asserts nothing.
 */
import type { Page } from 'playwright-core'
import { signInWith } from '@wickerframe/e2e/signIn'
import { startTestBed } from '@wickerframe/e2e/testBed'
import { openBrowser } from '@wickerframe/scripts/browser'
import { templateOf, told } from './rows.ts'

const large = templateOf(500)
const bed = await startTestBed({ courses: 24 })
const browser = await openBrowser()
try {
  const designer = await bed.as('designer@kestrelsound.example')
  await designer.post('/api/templates', large)
  const page = await signInWith(browser, bed.address, 'designer@kestrelsound.example')
  const opening = async (path: string): Promise<number[]> => {
    const times: number[] = []
    for (let i = 0; i < 6; i++) {
      const start = Date.now()
      await page.goto(bed.address + path)
      await page.locator('[data-row="home-page"]').waitFor()
      times.push(Date.now() - start)
    }
    return times.slice(1)
  }
  console.log('In Chromium, on a database of its own:')
  console.log(
    `  opening the Harbour Standard's workbench, from the address to the outline: ${told(await opening('/templates/harbour-standard'))}`,
  )
  console.log(`  opening a template of 500 rows: ${told(await opening('/templates/rows-500'))}`)
  await page.locator('[data-cell="2-1"]').click()
  console.log(
    `  going from row to row (arrow key to paint, 500 rows): ${told(
      await keysToPaint(
        page,
        Array.from({ length: 80 }, () => 'ArrowDown'),
      ),
    )}`,
  )
  await page.keyboard.press('Enter')
  console.log(
    `  typing in a cell (key to paint, 500 rows): ${told(await keysToPaint(page, [...'A name that is typed letter by letter, for {code} and for {title}, and so on and on until it ends']))}`,
  )
  await page.keyboard.press('Escape')
  await page.keyboard.press('Home')
  console.log(
    `  a strength typed and taken (Enter to paint, 500 rows): ${told(await editsToPaint(page))}`,
  )
  const blocks = Array.from({ length: 60 }, (_, at) => ({
    edit: 'add-block',
    part: 'checklist',
    at,
    block: {
      kind: 'fixed-text',
      key: `text-${at}`,
      strength: 'may',
      html: `<p>Text ${at} about the tide in week {week}, as long as a paragraph of a page is.</p>`,
    },
  }))
  await designer.post('/api/templates/harbour-standard/edits', { revision: 0, edits: blocks })
  await page.goto(`${bed.address}/templates/harbour-standard/pages/checklist`)
  await page.locator('[data-block="text-30"] [role="group"]').click()
  await page.locator('[data-block="text-30"] [role="textbox"]').waitFor()
  console.log(
    `  typing in one of 60 blocks of a page (key to paint): ${told(await keysToPaint(page, [...'A sentence that is typed letter by letter, for long enough to be kept several times while it goes on and on']))}`,
  )
} finally {
  await browser.close()
  await bed.stop()
}

/** From each key to the frame after it was painted. */
async function keysToPaint(page: Page, keys: readonly string[]): Promise<number[]> {
  await page.evaluate(
    `window.paints = []; window.onKeyBench ??= (() => { window.addEventListener('keydown', () => { const at = performance.now(); requestAnimationFrame(() => { const channel = new MessageChannel(); channel.port1.onmessage = () => window.paints.push(performance.now() - at); channel.port2.postMessage(0) }) }, true); return true })()`,
  )
  for (const key of keys) {
    await page.keyboard.press(key)
    await page.waitForTimeout(25)
  }
  await page.waitForTimeout(200)
  return (await page.evaluate('window.paints')) as number[]
}

/** From the Enter that takes an edit over to the frame after it was painted. */
async function editsToPaint(page: Page): Promise<number[]> {
  const times: number[] = []
  for (let i = 0; i < 24; i++) {
    await page
      .locator(`[data-row="page-0-${i % 10}"] [role="gridcell"]`)
      .nth(3)
      .click()
    await page.keyboard.press('Enter')
    await page.keyboard.press('Control+A')
    await page.keyboard.type(i % 20 < 10 ? 'should' : 'must')
    const [time] = (await keysToPaint(page, ['Enter'])).slice(-1)
    if (time !== undefined) times.push(time)
    await page.waitForTimeout(120)
  }
  return times
}
