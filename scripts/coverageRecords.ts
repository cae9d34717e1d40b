import { mkdirSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import type { Browser, Page } from 'playwright-core'

/** Where programs and browsers of a test write down what they reached; undefined when nobody counts. */
export const recordsFolder: string | undefined = process.env['WICKERFRAME_COVERAGE']

/** What a program of ours is given so that it writes down what it reached when it ends. */
export const recordingEnvironment = (): Readonly<Record<string, string>> =>
  recordsFolder === undefined ? {} : { NODE_V8_COVERAGE: recordsFolder }

let written = 0
const write = async (page: Page, folder: string): Promise<void> => {
  const result = await page.coverage.stopJSCoverage()
  mkdirSync(folder, { recursive: true })
  writeFileSync(
    join(folder, `browser-${process.pid}-${++written}.json`),
    JSON.stringify({
      result: result.map(({ scriptId, url, functions }) => ({ scriptId, url, functions })),
    }),
  )
}

/** The browser, which writes down what each of its pages reached before it is closed. */
export const recorded = (browser: Browser): Browser => {
  const folder = recordsFolder
  if (folder === undefined) return browser
  const open = new Set<Page>()
  const [newContext, close] = [browser.newContext.bind(browser), browser.close.bind(browser)]
  browser.newContext = async (options) => {
    const context = await newContext(options)
    const [newPage, closeContext] = [context.newPage.bind(context), context.close.bind(context)]
    context.close = async (how) => {
      for (const page of context.pages()) await page.close()
      await closeContext(how)
    }
    context.newPage = async () => {
      const page = await newPage()
      const begin = () => page.coverage.startJSCoverage({ resetOnNavigation: false })
      await begin()
      open.add(page)
      // What a document reached is forgotten when the next one takes its place.
      const afterWriting =
        <Given extends unknown[], Answer>(leave: (...given: Given) => Promise<Answer>) =>
        async (...given: Given): Promise<Answer> => {
          await write(page, folder)
          await begin()
          return leave(...given)
        }
      page.goto = afterWriting(page.goto.bind(page))
      page.reload = afterWriting(page.reload.bind(page))
      const closePage = page.close.bind(page)
      page.close = async (how) => {
        open.delete(page)
        await write(page, folder)
        await closePage(how)
      }
      return page
    }
    return context
  }
  browser.newPage = async (options) => (await browser.newContext(options)).newPage()
  browser.close = async (how) => {
    for (const page of open) if (!page.isClosed()) await write(page, folder)
    await close(how)
  }
  return browser
}
