import type { Browser, Page } from 'playwright-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import {
  expandCourse,
  firstHouseStyle,
  imageData,
  newBlock,
  offeredBlocks,
  renderPage,
  storedImage,
  Template,
  type Block,
  type ExpectedPart,
} from '@wickerframe/core'
import {
  demoTemplate,
  drawings,
  factsOfRoster,
  makeRoster,
  templateFiles,
  workshopStandard,
} from '@wickerframe/demo'
import { openBrowser } from '@wickerframe/scripts/browser'
import { violations } from './axe.ts'

const today = '2026-09-16'
const facts = factsOfRoster(makeRoster(1)).find(({ facts }) => facts.weeks > 8)?.facts
const homeOf = (template: Template): ExpectedPart => {
  if (!facts) throw new Error('the roster has a course')
  const expected = expandCourse({ template, facts })
  if (!expected.ok) throw new Error(JSON.stringify(expected.problems))
  return expected.value.home
}

/** A template whose home page holds one block of every kind, each as it is first put in. */
const everyKind = (base: Template, more: Pick<Block, 'card' | 'beside'> = {}): Template => {
  const host = { ...base, parts: base.parts, assets: drawings() }
  const blocks = offeredBlocks.flatMap(({ kind }): Block[] => {
    const block = newBlock(kind, `one-${kind}`, host)
    return block ? [{ ...block, ...more }] : []
  })
  const text = blocks.find(({ kind }) => kind === 'fixed-text')
  if (text?.kind === 'fixed-text')
    text.html =
      '<h2>Tides</h2><p>Twice <a href="part:welcome">a day</a>.</p><blockquote><p>Wait for no one.</p></blockquote><hr>'
  return Template.parse({ ...host, home: { ...base.home, blocks } })
}

/** On what a platform shows its pages. */
const grounds = {
  light: 'color:#222;background:#fff',
  dark: 'color:#e8e6e1;background:#1c1f23',
} as const
const links = { light: '#1a4f8f', dark: '#9cc4f2' } as const
type Ground = keyof typeof grounds

const documentOf = (page: ExpectedPart, template: Template, ground: Ground): string => {
  const images = new Map(
    template.assets.map((asset) => [storedImage(asset).name, imageData(asset)]),
  )
  const html = renderPage(page, today)
    .replace(/src="asset:([\w.-]+)"/g, (_, name: string) => `src="${images.get(name) ?? ''}"`)
    .replace(/href="ref:[^"]*"/g, 'href="#main"')
  return `<!doctype html><html lang="en"><head><title>Home</title><meta name="viewport" content="width=device-width"><style>body{font:16px/1.6 sans-serif;margin:16px;${grounds[ground]}}a{color:${links[ground]}}img{max-width:100%}</style></head><body><main id="main"><h1>Home</h1>${html}</main></body></html>`
}
const withoutStyles = (html: string): string => html.replace(/ style="[^"]*"/g, '')

let browser: Browser
let page: Page
beforeAll(async () => {
  browser = await openBrowser()
  page = await browser.newPage({ viewport: { width: 1100, height: 800 } })
})
afterAll(() => browser.close())

const base = demoTemplate('harbour-standard.json')
const looks: readonly (readonly [string, Template])[] = [
  ...templateFiles.map((file) => [file, demoTemplate(file)] as const),
  ['the Workshop Standard', workshopStandard()],
  ['every kind of block', everyKind(base)],
  [
    'every kind of block on a card',
    everyKind(
      { ...base, houseStyle: { ...firstHouseStyle, headings: 'line', corners: 'round' } },
      { card: true },
    ),
  ],
  [
    'every kind of block beside nothing',
    everyKind({ ...base, houseStyle: { ...firstHouseStyle, headings: 'plain' } }, { beside: true }),
  ],
]

describe('pages in their house style', () => {
  it.each(looks)(
    'can be read by everybody, on a light and a dark platform: %s',
    async (_, template) => {
      const home = homeOf(template)
      expect(home.blocks.length).toBeGreaterThan(3)
      for (const ground of ['light', 'dark'] as const) {
        const html = documentOf(home, template, ground)
        // In colours of its own, not only in its place.
        expect(html).toContain('background:#143f52')
        await page.setContent(html)
        expect(await violations(page), ground).toEqual([])
      }
    },
  )

  it.each(looks)('can be read where styles are dropped: %s', async (_, template) => {
    await page.setContent(withoutStyles(documentOf(homeOf(template), template, 'light')))
    expect(await violations(page)).toEqual([])
  })

  it.each(looks)('need no sideways scrolling on a phone: %s', async (_, template) => {
    await page.setViewportSize({ width: 360, height: 700 })
    await page.setContent(documentOf(homeOf(template), template, 'light'))
    expect(await page.evaluate('document.documentElement.scrollWidth')).toBeLessThanOrEqual(360)
    await page.setViewportSize({ width: 1100, height: 800 })
  })

  it('have a column beside the text where there is room, and above it on a phone', async () => {
    const html = documentOf(homeOf(base), base, 'light')
    const places = async (width: number) => {
      await page.setViewportSize({ width, height: 800 })
      await page.setContent(html)
      const box = async (name: string) => {
        const found = await page.getByRole('heading', { name, exact: true }).boundingBox()
        if (!found) throw new Error(`${name} is not shown`)
        return found
      }
      return { text: await box('Welcome aboard'), hours: await box('Office hours') }
    }
    const wide = await places(1100)
    expect(wide.hours.x).toBeGreaterThan(wide.text.x + 300)
    const narrow = await places(360)
    expect(narrow.hours.x).toBeLessThan(60)
    expect(narrow.hours.y).toBeLessThan(narrow.text.y)
  })
})
