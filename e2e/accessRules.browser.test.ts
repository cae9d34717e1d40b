import type { Browser, Page } from 'playwright-core'
import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import {
  analysePage,
  CheckContext,
  everyCourseItem,
  expectationFor,
  pairCourse,
  ruleById,
} from '@wickerframe/core'
import { demoTemplate, factsOfRoster, makeCourse, makeRoster } from '@wickerframe/demo'
import { openBrowser } from '@wickerframe/scripts/browser'

/**
 * Our accessibility rules against axe-core 4 in Chromium, on one set of pages: both see each page, and both must say what
 * stands here. Where they differ, it says why.
 */
interface Shared {
  html: string
  rule: string
  axe: string
  /** Whether we fail it, and whether axe-core does; `unsure`: it asks a person to look. */
  ours: 'fails' | 'passes' | 'unsure'
  theirs: 'fails' | 'passes' | 'unsure'
  differs?: string
}
const both = (rule: string, axe: string, says: Shared['ours'], html: string): Shared => ({
  rule,
  axe,
  html,
  ours: says,
  theirs: says,
})

const pages: readonly Shared[] = [
  both('alt-missing', 'image-alt', 'fails', '<p><img src="t.png"></p>'),
  both('alt-missing', 'image-alt', 'passes', '<p><img src="t.png" alt="Tide tables"></p>'),
  both('alt-missing', 'image-alt', 'passes', '<p><img src="t.png" alt=""></p>'),
  both('alt-missing', 'image-alt', 'passes', '<p><img src="t.png" role="presentation"></p>'),
  both('alt-missing', 'image-alt', 'passes', '<p><img src="t.png" aria-label="Tide tables"></p>'),
  both('alt-missing', 'image-alt', 'passes', '<p><img src="t.png" title="Tide tables"></p>'),
  both('heading-skip', 'heading-order', 'passes', '<h2>Tides</h2><h3>Springs</h3><h2>Streams</h2>'),
  both('heading-skip', 'heading-order', 'fails', '<h2>Tides</h2><h4>Springs</h4>'),
  both('heading-skip', 'heading-order', 'fails', '<h2>Tides</h2><h3>Springs</h3><h5>Neaps</h5>'),
  both(
    'heading-skip',
    'heading-order',
    'passes',
    '<h2>Tides</h2><h3>Springs</h3><h4>Why</h4><h2>Streams</h2>',
  ),
  both('heading-empty', 'empty-heading', 'fails', '<h2>Tides</h2><h3></h3>'),
  both('heading-empty', 'empty-heading', 'fails', '<h2>Tides</h2><h3>&nbsp;</h3>'),
  both(
    'heading-empty',
    'empty-heading',
    'passes',
    '<h2>Tides</h2><h3><img src="s.png" alt="Springs"></h3>',
  ),
  both(
    'link-text-vague',
    'link-name',
    'fails',
    '<p>Read <a href="https://tides.example/"></a></p>',
  ),
  both(
    'link-text-vague',
    'link-name',
    'fails',
    '<p><a href="https://tides.example/"><img src="t.png" alt=""></a></p>',
  ),
  both(
    'link-text-vague',
    'link-name',
    'passes',
    '<p><a href="https://tides.example/"><img src="t.png" alt="Tide tables"></a></p>',
  ),
  both(
    'link-text-vague',
    'link-name',
    'passes',
    '<p><a href="https://tides.example/" aria-label="Tide tables"></a></p>',
  ),
  {
    rule: 'link-text-vague',
    axe: 'link-name',
    html: '<p><a href="https://tides.example/">click here</a></p>',
    ours: 'fails',
    theirs: 'passes',
    differs:
      'axe-core asks for a name, not whether it says where the link leads: WCAG 2.4.4 is more than that',
  },
  both(
    'captions-missing',
    'video-caption',
    'passes',
    '<video src="m.mp4"><track kind="captions" src="m.vtt"></video>',
  ),
  {
    rule: 'captions-missing',
    axe: 'video-caption',
    html: '<video src="m.mp4" controls></video>',
    ours: 'fails',
    theirs: 'unsure',
    differs:
      'axe-core cannot know whether captions are burnt into the film; we tell it as a finding, which a waiver or somebody’s word settles',
  },
  both('contrast-inline', 'color-contrast', 'fails', '<p style="color:#777">Small print</p>'),
  both('contrast-inline', 'color-contrast', 'passes', '<p style="color:#767676">Small print</p>'),
  both('contrast-inline', 'color-contrast', 'fails', '<p style="color:yellow">Read this first</p>'),
  both(
    'contrast-inline',
    'color-contrast',
    'passes',
    '<p style="color:#949494;font-size:24px">Tides</p>',
  ),
  both(
    'contrast-inline',
    'color-contrast',
    'passes',
    '<p style="color:#949494;font-size:14pt;font-weight:bold">Tides</p>',
  ),
  both(
    'contrast-inline',
    'color-contrast',
    'fails',
    '<p style="color:#949494;font-size:18px">Tides</p>',
  ),
  both(
    'contrast-inline',
    'color-contrast',
    'fails',
    '<div style="background-color:#eee"><p style="color:#888">On a ground</p></div>',
  ),
  both(
    'contrast-inline',
    'color-contrast',
    'passes',
    '<div style="background-color:#003;color:#fff"><p>On a dark ground</p></div>',
  ),
  both(
    'contrast-inline',
    'color-contrast',
    'fails',
    '<p><font color="#ff9999">Old ways</font></p>',
  ),
  both(
    'table-without-headers',
    'td-has-header',
    'fails',
    `<table>${'<tr><td>a</td><td>b</td><td>c</td><td>d</td></tr>'.repeat(4)}</table>`,
  ),
  both(
    'table-without-headers',
    'td-has-header',
    'passes',
    `<table><tr><th>A</th><th>B</th><th>C</th><th>D</th></tr>${'<tr><td>a</td><td>b</td><td>c</td><td>d</td></tr>'.repeat(4)}</table>`,
  ),
  both(
    'table-without-headers',
    'td-has-header',
    'passes',
    '<table role="presentation"><tr><td>a</td><td>b</td></tr><tr><td>c</td><td>d</td></tr></table>',
  ),
  {
    rule: 'table-without-headers',
    axe: 'td-has-header',
    html: '<table><tr><td>Port</td><td>High</td></tr><tr><td>Sound</td><td>4.2</td></tr></table>',
    ours: 'fails',
    theirs: 'passes',
    differs:
      'axe-core looks only at tables larger than three by three; small ones are the common case in courses',
  },
]

const axeSource = readFileSync(
  createRequire(import.meta.url).resolve('axe-core/axe.min.js'),
  'utf8',
)
let browser: Browser
let page: Page
beforeAll(async () => {
  browser = await openBrowser()
  page = await browser.newPage()
  page.setDefaultTimeout(120_000)
})
afterAll(() => browser?.close())

/** What axe-core says of one rule; what it finds inapplicable has nothing wrong. */
const askAxe = async (html: string, rule: string): Promise<Shared['theirs']> => {
  await page.setContent(
    `<!doctype html><html lang="en"><head><title>Page</title></head><body style="background:#fff;color:#000"><main>${html}</main></body></html>`,
  )
  await page.evaluate(axeSource)
  const found = (await page.evaluate(
    `axe.run(document, { runOnly: { type: 'rule', values: ['${rule}'] } }).then((r) => ({ violations: r.violations.length, incomplete: r.incomplete.length }))`,
  )) as { violations: number; incomplete: number }
  return found.violations > 0 ? 'fails' : found.incomplete > 0 ? 'unsure' : 'passes'
}

const template = demoTemplate('harbour-standard.json')
const facts = factsOfRoster(makeRoster(1))[0]?.facts
/** What our rule says of a page that stands alone in a course. */
const askOurs = (html: string, id: string): Shared['ours'] => {
  if (!facts) throw new Error('the roster is empty')
  const course = makeCourse('access', template, facts, 'perfect', 1)
  const item = everyCourseItem(course).find((placed) => placed.item.html !== null)?.item
  if (!item) throw new Error('the course has a page')
  item.html = html
  const worked = expectationFor({ template, facts, course })
  if (!worked.ok) throw new Error('the template fits')
  const pageOf = (item: { html: string | null }) =>
    item.html === null ? null : analysePage(item.html)
  const context = new CheckContext({
    ...worked.value,
    course,
    pairing: pairCourse(worked.value.expected, course, pageOf),
    asOf: '2026-09-16',
    pageOf,
  })
  const outcomes = [...(ruleById(id)?.run(context, {}) ?? [])]
    .filter((verdict) => 'itemId' in verdict && verdict.itemId === item.id)
    .map((verdict) => verdict.outcome)
  return outcomes.includes('failed')
    ? 'fails'
    : outcomes.includes('cannot-tell')
      ? 'unsure'
      : 'passes'
}

describe('accessibility rules and axe-core (4.x) on the same pages', () => {
  it.each(pages.map((page) => [page.rule, page.html, page] as const))(
    '%s: %s',
    async (_, html, example) => {
      expect(['ours', askOurs(html, example.rule)]).toEqual(['ours', example.ours])
      expect(['axe', await askAxe(html, example.axe)]).toEqual(['axe', example.theirs])
      expect(example.ours === example.theirs || (example.differs ?? '') !== '').toBe(true)
    },
  )
})
