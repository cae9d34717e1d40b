import type { Browser, Page } from 'playwright-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { TemplateDraft } from '@wickerframe/contract'
import { everyPart, homePageKey, isModule, type Block, type TemplateEdit } from '@wickerframe/core'
import { openBrowser } from '@wickerframe/scripts/browser'
import { violations } from './axe.ts'
import { signInWith } from './signIn.ts'
import { startTestBed, until, type Client, type TestBed } from './testBed.ts'

const template = 'harbour-standard'
const part = 'week-overview'
let bed: TestBed
let browser: Browser
let page: Page
let designer: Client

beforeAll(async () => {
  bed = await startTestBed({ courses: 24 })
  designer = await bed.as('designer@kestrelsound.example')
  browser = await openBrowser()
  page = await signInWith(browser, bed.address, 'designer@kestrelsound.example')
})
afterAll(async () => {
  await browser?.close()
  await bed.stop()
})

const draft = async () => (await designer.get<TemplateDraft>(`/api/templates/${template}`)).body
const blocksOn = async (key = part): Promise<readonly Block[]> => {
  const { draft: now } = await draft()
  if (key === homePageKey) return now.home.blocks
  const found = everyPart(now).find((each) => each.key === key)
  return found && !isModule(found) ? found.blocks : []
}
const htmlOf = async (key: string): Promise<string> => {
  const block = (await blocksOn()).find((each) => each.key === key)
  return block?.kind === 'fixed-text' ? block.html : ''
}
const open = async (key = part) => {
  await page.goto(`${bed.address}/templates/${template}/pages/${key}`)
  await page.getByRole('list', { name: 'The page' }).waitFor()
  if (key !== part) return
  // What is made from a course is there a moment after the page.
  await page
    .getByText(/^made from/)
    .first()
    .waitFor()
}
const block = (key: string) => page.locator(`[data-block="${key}"]`)
/** A new fixed text at the end, its words marked, so that what is typed stands in their place. */
const putIn = async (key: string) => {
  await page
    .getByRole('toolbar', { name: 'Put in' })
    .getByRole('button', { name: 'fixed text', exact: true })
    .click()
  await block(key).getByRole('textbox', { name: 'Fixed text' }).waitFor()
  await until(
    () => page.evaluate(() => document.getSelection()?.toString() ?? ''),
    (marked) => marked === 'New fixed text.',
    20,
  )
}
const press = async (...keys: string[]) => {
  for (const key of keys) await page.keyboard.press(key)
}
const paste = (html: string) =>
  page.evaluate((held) => {
    const data = new DataTransfer()
    data.setData('text/html', held)
    document.activeElement?.dispatchEvent(
      new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
    )
  }, html)
/** A picture of noise, 1600 by 1200 pixels: far more than a template may hold. */
const photograph = () =>
  page.evaluate(async () => {
    const canvas = document.createElement('canvas')
    canvas.width = 1600
    canvas.height = 1200
    const on = canvas.getContext('2d')
    const noise = on?.createImageData(1600, 1200)
    for (let i = 0; noise && i < noise.data.length; i++) noise.data[i] = (i * 7919) % 256
    if (noise) on?.putImageData(noise, 0, 0)
    return canvas.toDataURL('image/png')
  })

describe('a page written at full width', () => {
  it('is reached from its slip, shows itself as students will see it, and leads to the pages beside it', async () => {
    await page.goto(`${bed.address}/templates/${template}?part=${part}`)
    await page.getByRole('link', { name: 'full width' }).click()
    await page.getByRole('heading', { level: 1, name: 'Week {week} overview' }).waitFor()
    await page
      .getByText(/^made from/)
      .first()
      .waitFor()
    expect(await block('title').getByRole('heading').textContent()).toBe('Week {week} overview')
    expect(await violations(page)).toEqual([])
    const [, next] = await page
      .getByRole('navigation', { name: /beside/ })
      .getByRole('link')
      .all()
    const name = await next?.getAttribute('title')
    await next?.click()
    await page.getByRole('heading', { level: 1, name: name ?? '-' }).waitFor()
    await page.getByRole('link', { name: 'Back to the outline' }).click()
    await page.getByRole('treegrid').waitFor()
  })
  it('is written as one text: split, gone through by arrows, and joined, all kept and all taken back', async () => {
    await open()
    const before = await blocksOn()
    await putIn('fixed-text')
    await page.keyboard.type('First line')
    await press('Enter')
    await page.keyboard.type('Second line')
    // Keys that come fast: the text is parted where the cursor is seen.
    await press(...Array.from('Second line', () => 'ArrowLeft'), 'Control+Enter')
    await block('fixed-text-2').getByRole('textbox').waitFor()
    await page.keyboard.type('The ')
    await until(
      () => htmlOf('fixed-text-2'),
      (html) => html === '<p>The Second line</p>',
      20,
    )
    expect(await htmlOf('fixed-text')).toBe('<p>First line</p>')
    await press('ArrowUp')
    await block('fixed-text').getByRole('textbox').waitFor()
    await page.keyboard.type('!')
    await press('ArrowDown')
    await block('fixed-text-2').getByRole('textbox').waitFor()
    await press('Home', 'Backspace')
    await block('fixed-text').getByRole('textbox').waitFor()
    await page.keyboard.type('?')
    await until(
      () => htmlOf('fixed-text'),
      (html) => html === '<p>First line!?</p><p>The Second line</p>',
      20,
    )
    expect((await blocksOn()).length).toBe(before.length + 1)
    await press('Escape')
    const undo = page.getByRole('button', { name: 'Undo', exact: true })
    while (await undo.isEnabled()) await undo.click()
    await until(blocksOn, (now) => JSON.stringify(now) === JSON.stringify(before), 20)
  })
  it('asks of each pasted picture what it shows, makes it small enough, and keeps none that nobody described', async () => {
    await open()
    await putIn('fixed-text')
    await paste(
      `<p>Before <img src="${await photograph()}"> between <img src="${await photograph()}" alt="Noise again"> after</p>`,
    )
    const words = page.getByLabel(/^What does this picture show/)
    await words.fill('Much noise')
    // It is not kept before it is described.
    await until(
      () => htmlOf('fixed-text'),
      (html) => html.includes('after'),
      20,
    )
    expect(await htmlOf('fixed-text')).not.toContain('<img')
    await press('Enter')
    await until(
      () => htmlOf('fixed-text'),
      (html) => html.includes('alt="Much noise"'),
      20,
    )
    await page.getByLabel(/^What does the picture show/).waitFor()
    await page.getByRole('button', { name: 'leave it out' }).click()
    expect(await violations(page)).toEqual([])
    const { draft: now } = await draft()
    const asset = now.assets.find(({ alternativeText }) => alternativeText === 'Much noise')
    expect([asset?.licence, (asset?.base64 ?? '').length > 1000]).toEqual(['our own', true])
    expect(await htmlOf('fixed-text')).toContain(`src="asset:${asset?.fileName}"`)
    await press('Escape')
    // It is seen on the page, as it will be.
    const shown = block('fixed-text').getByRole('img', { name: 'Much noise' })
    expect(await shown.evaluate((image: HTMLImageElement) => image.naturalWidth)).toBeGreaterThan(0)
    await page.getByRole('button', { name: 'As students' }).click()
    await page.frameLocator('iframe').getByRole('img', { name: 'Much noise' }).waitFor()
  })
  it('is read as the first course would: what it would be told is the designer’s, before any release', async () => {
    await page.goto(`${bed.address}/templates/${template}?view=proofreading`)
    const read = page.getByRole('region', { name: 'As the first course' })
    await read.getByText(/nothing would be told that is not the instructor/).waitFor()
    await open()
    await putIn('fixed-text-2')
    await page.keyboard.type('Lorem ipsum dolor sit amet, consectetur adipiscing elit.')
    await press('Escape')
    await page.getByText(/^saved/).waitFor()
    await page.getByRole('link', { name: 'Back to the outline' }).click()
    await page.getByRole('button', { name: /^Proofreading/ }).click()
    await read.getByText(/would be told: “Week \d overview” still says “Lorem/).waitFor()
    expect(await violations(page)).toEqual([])
    await page.getByRole('button', { name: /^Release version/ }).click()
    await page
      .getByRole('region', { name: 'Release' })
      .getByText(/1 thing would be told that is the template’s own/)
      .waitFor()
    await page.getByRole('button', { name: 'not now' }).click()
  })
  it('is put in order by dragging its blocks by the margin', async () => {
    await open()
    const keys = async () => (await blocksOn()).map(({ key }) => key)
    const before = await keys()
    const margin = block('fixed-text').locator('> div').first()
    // On a busy machine what the first course would be told comes later, and moves what is below it.
    let stood = ''
    const standsStill = async () => {
      const before = stood
      stood = JSON.stringify(await margin.boundingBox())
      return before === stood
    }
    await until(standsStill, (still) => still, 20)
    const from = await margin.boundingBox()
    const to = await block('title').boundingBox()
    if (!from || !to) throw new Error('both are shown')
    await page.mouse.move(from.x + 60, from.y + 10)
    await page.mouse.down()
    await page.mouse.move(from.x + 60, from.y - 30, { steps: 4 })
    await page.mouse.move(from.x + 60, to.y + 4, { steps: 8 })
    await page.mouse.up()
    await until(keys, (now) => now[0] === 'fixed-text', 20)
    expect((await keys()).slice(1)).toEqual(before.filter((key) => key !== 'fixed-text'))
  })
  it('draws nothing of its other blocks anew while one of sixty is typed in', async () => {
    const { draftRevision } = await draft()
    const edits = Array.from({ length: 60 }, (_, at): TemplateEdit => ({
      edit: 'add-block',
      part: 'checklist',
      at,
      block: {
        kind: 'fixed-text',
        key: `text-${at}`,
        strength: 'may',
        html: `<p>Text ${at} about tide {week}</p>`,
      },
    }))
    const { status } = await designer.post(`/api/templates/${template}/edits`, {
      revision: draftRevision,
      edits,
    })
    expect(status).toBe(200)
    await page.goto(`${bed.address}/templates/${template}/pages/checklist`)
    await block('text-30').getByRole('group').click()
    await block('text-30').getByRole('textbox').waitFor()
    await page.evaluate(() => {
      const list = document.querySelector('[aria-label="The page"]')
      const others: string[] = []
      Object.assign(window, { others })
      new MutationObserver((records) => {
        for (const { target, type } of records) {
          const row = (target instanceof Element ? target : target.parentElement)?.closest(
            '[data-block]',
          )
          // What is not on the page any more was of the text itself.
          const key = row?.getAttribute('data-block') ?? 'text-30'
          if (key !== 'text-30') others.push(`${key} ${type} ${target.textContent?.slice(0, 60)}`)
        }
      }).observe(list ?? document.body, {
        subtree: true,
        childList: true,
        characterData: true,
        attributes: true,
      })
    })
    await press('End')
    await page.keyboard.type(' and more')
    await until(
      async () => JSON.stringify(await blocksOn('checklist')),
      (now) => now.includes('about tide {week} and more'),
      20,
    )
    expect(await page.evaluate('window.others')).toEqual([])
  })
  it.each(['light', 'dark'] as const)(
    'is for everybody, also when it is large on the screen: %s',
    async (colorScheme) => {
      await page.emulateMedia({ colorScheme })
      for (const width of [1280, 640]) {
        await page.setViewportSize({ width, height: 800 })
        await open(homePageKey)
        expect(await violations(page)).toEqual([])
        expect(await page.evaluate('document.documentElement.scrollWidth')).toBe(width)
        await block('banner').getByRole('group').focus()
        await press('ArrowDown', 'ArrowDown', 'Enter')
        await page.getByLabel('Heading above it').waitFor()
        expect(await violations(page)).toEqual([])
        await press('Escape')
      }
      await page.setViewportSize({ width: 1280, height: 800 })
      await page.emulateMedia({ colorScheme: 'light' })
    },
  )
  it('is read, and not written, by a reviewer', async () => {
    const reviewer = await signInWith(browser, bed.address, 'reviewer@kestrelsound.example')
    await reviewer.goto(`${bed.address}/templates/${template}/pages/${part}`)
    await reviewer.locator('[data-block="title"]').waitFor()
    await reviewer.locator('[data-block="dates"] [role="group"]').click()
    expect(await reviewer.getByRole('textbox').count()).toBe(0)
    expect(await reviewer.getByRole('toolbar').count()).toBe(0)
    await reviewer.context().close()
  })
})
