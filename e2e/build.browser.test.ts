import { readFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import type { Browser, Locator, Page } from 'playwright-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { everyItem, homePageKey, type Item } from '@wickerframe/core'
import type { TemplateDraft } from '@wickerframe/contract'
import { openBrowser } from '@wickerframe/scripts/browser'
import { signInWith } from './signIn.ts'
import { startTestBed, type Client, type TestBed } from './testBed.ts'

/*
 * A standard of another college, built by hand by somebody who begins with “A page of sentences”: how many presses and keystrokes it
 * takes beside the text itself. Everything that is pressed is counted: a choice from a list as two, a file as two, a drop or a paste
 * as one.
 */

const patience = { timeout: 60_000 }
let bed: TestBed
let browser: Browser
let page: Page
let designer: Client
const pageErrors: string[] = []

beforeAll(async () => {
  bed = await startTestBed({ courses: 6 })
  designer = await bed.as('designer@kestrelsound.example')
  browser = await openBrowser()
  page = await signInWith(browser, bed.address, 'designer@kestrelsound.example')
  page.on('pageerror', (cause) => pageErrors.push(cause.message))
})
afterAll(async () => {
  await browser?.close()
  await bed.stop()
})

let presses = 0
const press = async (what: Locator): Promise<void> => {
  presses += 1
  await what.click()
}
const button = (name: string | RegExp, within: Page | Locator = page) =>
  within.getByRole('button', { name, exact: typeof name === 'string' })
const keys = async (...pressed: string[]): Promise<void> => {
  for (const key of pressed) {
    presses += 1
    await page.keyboard.press(key)
  }
}
/** Text is not counted, but going to its field is. */
const write = async (field: Locator, text: string): Promise<void> => {
  presses += 1
  await field.fill(text)
}
const choose = async (list: Locator, option: string): Promise<void> => {
  presses += 2
  await list.selectOption({ label: option })
}
const fromMenu = async (menu: Locator, entry: string): Promise<void> => {
  await press(menu)
  await press(page.getByRole('menuitem', { name: entry, exact: true }))
}
const paste = (html: string) => {
  presses += 1
  return page.evaluate((held) => {
    const data = new DataTransfer()
    data.setData('text/html', held)
    document.activeElement?.dispatchEvent(
      new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
    )
  }, html)
}
/** How many presses something took. */
const counted = async (what: () => Promise<void>): Promise<number> => {
  const before = presses
  await what()
  return presses - before
}

const key = 'lighthouse-standard'
const draft = async () => (await designer.get<TemplateDraft>(`/api/templates/${key}`)).body
const part = async (name: RegExp): Promise<Item> => {
  const found = everyItem((await draft()).draft).find((item) => name.test(item.name))
  if (!found) throw new Error(`no ${String(name)}`)
  return found
}
const blocksOf = async (name: RegExp | null) =>
  name === null ? (await draft()).draft.home.blocks : (await part(name)).blocks
/** The page of a part at full width: its row, and the link there. */
const openPage = async (name: RegExp | null): Promise<void> => {
  presses += 2
  await page.goto(
    `${bed.address}/templates/${key}/pages/${name === null ? homePageKey : (await part(name)).key}`,
  )
  await page.getByLabel('The page').waitFor({ state: 'attached' })
}
const putIn = async (kind: string): Promise<void> =>
  press(
    page.getByRole('toolbar', { name: 'Put in' }).getByRole('button', { name: kind, exact: true }),
  )
const saved = (name: RegExp | null, wanted: (kinds: string[]) => boolean) =>
  expect
    .poll(async () => wanted((await blocksOf(name)).map(({ kind }) => kind)), patience)
    .toBe(true)

const sample = (name: string): string =>
  readFileSync(fileURLToPath(new URL(`../core/src/paste/samples/${name}`, import.meta.url)), 'utf8')

const left = (name: RegExp): Locator =>
  page.getByRole('combobox', {
    name: new RegExp(`^How ${name.source}.*is left to the instructor$`),
  })

describe('the standard of another college', () => {
  it('begins with a page of sentences, and a list of what else it has', async () => {
    presses += 1
    await page.goto(`${bed.address}/templates/new`)
    await write(page.getByLabel('It is called'), 'Lighthouse Standard')
    await choose(page.getByLabel('Weeks', { exact: true }), '8')
    await press(page.getByRole('checkbox', { name: 'an assessment' }))
    await press(button('Make the template'))
    await page.getByRole('treegrid').waitFor()
    await fromMenu(button('Add a part ▾'), 'a list of parts …')
    await write(
      page.getByLabel('The list'),
      'Policies\n  Academic honesty\n  Getting help\n  Technology you need',
    )
    await press(button(/^Put in 4 rows/))
    await expect.poll(async () => everyItem((await draft()).draft).length, patience).toBe(12)
  })

  it('has a home page with a banner in fewer than 12 presses, and ways that lead from place to place', async () => {
    await press(button('House style'))
    await press(button('Begin a house style'))
    await openPage(null)
    const banner = await counted(async () => {
      await fromMenu(button('more ▾'), 'Banner')
      await write(page.getByLabel('Title on it'), '{title}')
      await press(button('Done'))
      // To the top, over what the sentences brought.
      await keys(...Array<string>(5).fill('Alt+ArrowUp'))
    })
    expect(banner).toBeLessThan(12)
    await saved(null, ([first]) => first === 'banner')
    await press(page.locator('[data-block=course-title] [role=group]'))
    await press(button('Done'))
    await keys('Delete')
    await press(page.locator('[data-block=begin] [role=group]'))
    await choose(page.getByLabel('Shown as'), 'a numbered route')
    for (const [says, to] of [
      ['This week', 'Week {week} · {dates} · {topic}'],
      ['Policies', 'Academic honesty'],
    ] as const) {
      await press(button('add a signpost'))
      await write(page.getByLabel('Says').last(), says)
      await choose(page.getByLabel('leads to').last(), to)
    }
    await press(button('Done'))
    await putIn('key dates')
    await saved(
      null,
      (kinds) => kinds.includes('key-dates') && !kinds.includes('title') && kinds[0] === 'banner',
    )
    expect((await blocksOf(null)).find(({ kind }) => kind === 'signposts')).toMatchObject({
      as: 'route',
      links: [{}, { text: 'This week' }, { text: 'Policies' }],
    })
  })

  it('takes a formatted page pasted and placed in fewer than 12 presses', async () => {
    const taken = await counted(async () => {
      await openPage(/^Academic honesty/)
      await putIn('fixed text')
      await page.getByRole('textbox', { name: 'Fixed text' }).waitFor()
      await paste(sample('wordProcessor.html'))
      await keys('Escape')
    })
    expect(taken).toBeLessThan(12)
    await expect
      .poll(async () => JSON.stringify(await blocksOf(/^Academic honesty/)), patience)
      .toMatch(/<h[34]>.*<(?:ul|ol)>.*<table>/)
    for (const [name, text] of [
      ['Getting help', 'Getting Help Afloat and Ashore'],
      ['Technology you need', 'Technology You Need'],
    ] as const) {
      await openPage(new RegExp(`^${name}`))
      await putIn('house text')
      await choose(page.getByLabel('Shows'), text)
      await press(button('Done'))
      await saved(new RegExp(`^${name}`), (kinds) => kinds.includes('house-text'))
    }
    expect((await draft()).draft.houseTexts.length).toBeGreaterThanOrEqual(2)
  })

  it('hands out a file for all courses in fewer than 12 presses', async () => {
    const taken = await counted(async () => {
      await openPage(/syllabus/)
      await fromMenu(button('more ▾'), 'Document')
      presses += 2
      await page
        .getByLabel('The document, in each of its formats')
        .setInputFiles(fileURLToPath(new URL('../demo/files/syllabus-form.docx', import.meta.url)))
      await page.getByText(/is filled for each course/).waitFor()
      await press(button('Done'))
    })
    expect(taken).toBeLessThan(12)
    await saved(/syllabus/, (kinds) => kinds.includes('document'))
    expect((await draft()).draft.files).toHaveLength(1)
  })

  it('asks the instructor for what is theirs in each week, with its structure', async () => {
    await openPage(/overview/)
    for (const kind of ['objectives', 'reading']) {
      if ((await blocksOf(/overview/)).some((block) => block.kind === kind)) continue
      await putIn(kind)
      await choose(
        left(new RegExp(kind === 'reading' ? '“Reading”' : '“.*”')).last(),
        'is asked for',
      )
      await press(button('Done'))
      await saved(/overview/, (kinds) => kinds.includes(kind))
    }
    await putIn('video')
    await write(page.getByLabel('Title', { exact: true }), 'How tides turn')
    await write(page.getByLabel('Address', { exact: true }), 'https://films.example/tides')
    await press(page.getByLabel('has captions'))
    await press(button('Done'))
    await expect
      .poll(async () => (await blocksOf(/overview/)).find(({ kind }) => kind === 'video'), patience)
      .toMatchObject({
        title: 'How tides turn',
        url: 'https://films.example/tides',
        captions: true,
      })
  })

  it('has a quiz of five questions in fewer than 12 presses', async () => {
    const taken = await counted(async () => {
      await openPage(/^Quiz/)
      await press(button('Take questions from a list …'))
      await write(
        page.getByLabel('The list'),
        ['One', 'Two', 'Three', 'Four', 'Five']
          .map((word, i) => `${i + 1}. ${word}? (4 points)\n*a) yes, ${word}\nb) no`)
          .join('\n\n'),
      )
      await press(button('Put in 5 questions'))
    })
    expect(taken).toBeLessThan(12)
    await expect.poll(async () => (await part(/^Quiz/)).questions?.list.length, patience).toBe(5)
  })

  it('weighs its grades, is proofread and released: all of it in fewer than 400 presses beside the text', async () => {
    presses += 1
    await page.goto(`${bed.address}/templates/${key}?view=grading`)

    for (const [name, weight] of [
      ['Discussions', '20'],
      ['Assignments', '50'],
      ['Quizzes', '30'],
    ] as const)
      await write(page.getByLabel(`Weight of ${name}`), weight)
    await keys('Tab')
    await press(button(/^Release version 1/))
    await page.getByText(/Proofreading found no error/).waitFor()
    await press(button(/^Release version 1$/).last())
    await expect
      .poll(
        async () =>
          (await designer.get<TemplateDraft>(`/api/templates/${key}`)).body.versions?.length,
        patience,
      )
      .toBe(1)
    console.info(`${presses} presses`)
    expect(presses).toBeLessThan(400)
    expect(pageErrors).toEqual([])
  })
})
