import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { LibraryEntry } from '@wickerframe/contract'
import { exampleTemplate } from '@wickerframe/core/testing'
import { startCheckedCollege, type CheckedCollege } from '../testing/privateCollege.testing.ts'

let college: CheckedCollege
beforeAll(async () => {
  college = await startCheckedCollege()
})
afterAll(() => college.stop())

const [muster] = exampleTemplate().houseTexts
if (!muster) throw new Error('the example has a house text')
const put = (document: object, was: number | null, kind = 'house-text') =>
  college.people.designer.post('/api/library', { kind, was, document })
const entry = async (key: string): Promise<LibraryEntry | undefined> =>
  (await college.people.reviewer.get('/api/library')).body.find(
    (entry: LibraryEntry) => entry.key === key,
  )
const withRevision = (html: string, number = 3) => ({
  ...muster,
  revisions: [...muster.revisions, { number, inForceFrom: '2026-09-14', html }],
})

describe('the library', () => {
  it('has what a template brought along, with where it is used', async () => {
    expect(await entry('muster')).toMatchObject({
      revision: 1,
      templates: [{ key: 'example-standard', current: true }],
      courses: 1,
      coursesOutOfDate: 0,
    })
  })
  it('takes a new revision of a house text; courses that show the old one are told by their next check', async () => {
    expect((await put(withRevision('<p>Call 6600.</p>'), 1)).body).toEqual({ revision: 2 })
    await college.readWith()
    expect((await college.result()).findings.map(({ rule }) => rule)).toContain(
      'house-text-outdated',
    )
    expect(await entry('muster')).toMatchObject({ revision: 2, coursesOutOfDate: 1 })
  })
  it('is read by students at the address of the text, as it is in force today, without signing in', async () => {
    const page = await fetch(`${college.address}/house-texts/muster`)
    expect(page.headers.get('content-security-policy')).toContain("default-src 'none'")
    expect(await page.text()).toContain('Call 6600')
    expect((await fetch(`${college.address}/house-texts/no-such`)).status).toBe(404)
  })
  it('never rewrites a revision that was in force', async () => {
    const rewritten = {
      ...withRevision('<p>Call 6600.</p>'),
      revisions: withRevision('<p>Call 6600.</p>').revisions.map((revision) => ({
        ...revision,
        html: '<p>Quite otherwise.</p>',
      })),
    }
    const answer = await put(rewritten, 2)
    expect([answer.status, answer.body.detail]).toEqual([
      409,
      expect.stringContaining('revision 1'),
    ])
  })
  it('answers who corrected an older state with what stands there now, and keeps it', async () => {
    const answer = await put(withRevision('<p>Mine.</p>'), 1)
    expect(answer.status).toBe(409)
    expect(JSON.stringify(answer.body.clash.present)).toContain('Call 6600')
    expect((await entry('muster'))?.revision).toBe(2)
  })
  it('has one thing under each key, of each kind', async () => {
    expect((await put(muster, null)).status).toBe(409)
    const rubric = {
      key: 'muster',
      title: 'Log book',
      criteria: [
        {
          text: 'Neatness',
          levels: [
            { points: 4, text: 'Shipshape' },
            { points: 0, text: 'Adrift' },
          ],
        },
      ],
    }
    const answer = await put(rubric, null, 'rubric')
    expect([answer.status, answer.body]).toEqual([200, { revision: 1 }])
  })
  it('lets nothing active in', async () => {
    const answer = await put(withRevision('<p onclick="x()">Call</p><script>x()</script>', 4), 2)
    expect(answer.status).toBe(400)
    expect(answer.body.detail).toMatch(/script|onclick/)
  })
  it('is kept by designers alone', async () => {
    for (const client of [college.people.reviewer, college.people.instructor])
      expect(
        (await client.post('/api/library', { kind: 'house-text', was: 2, document: muster }))
          .status,
      ).toBe(403)
  })
  it('reads a rubric from a table, or says in which line it is wrong', async () => {
    const read = (text: string) => college.people.designer.send('/api/rubric-file', text)
    const wrong = await read('nothing,of,that\n1,2,3\n')
    expect([wrong.status, wrong.body.detail]).toEqual([400, expect.stringMatching(/^line \d/)])
    expect((await read('')).status).toBe(400)
  })
})

describe('a set of images', () => {
  const image = {
    key: 'pier',
    fileName: 'pier.svg',
    svg: '<svg viewBox="0 0 6 1"></svg>',
    alternativeText: 'A pier',
    licence: 'our own',
  }
  const banners = (...images: string[]) => ({
    key: 'banners',
    title: 'Banners',
    size: { width: 1200, height: 200 },
    images,
  })
  it('is made of images that are there, and no template holds it', async () => {
    expect((await put(image, null, 'image')).status).toBe(200)
    const refused = await put(banners('pier', 'mole'), null, 'image-set')
    expect([refused.status, refused.body.detail]).toEqual([400, expect.stringContaining('mole')])
    expect((await put(banners('pier'), null, 'image-set')).body).toEqual({ revision: 1 })
    expect(await entry('banners')).toMatchObject({
      kind: 'image-set',
      title: 'Banners',
      document: banners('pier'),
      templates: [],
      courses: 0,
    })
  })
  it('is corrected by one at a time, and nobody but those who keep the library', async () => {
    const drafts = () =>
      college.rows(`SELECT draft
        FROM templates
        ORDER BY id`)
    const before = await drafts()
    expect((await put({ ...banners('pier'), title: 'Heads' }, 1, 'image-set')).status).toBe(200)
    const late = await put(banners(), 1, 'image-set')
    expect([late.status, late.body.clash?.present]).toEqual([
      409,
      { ...banners('pier'), title: 'Heads' },
    ])
    expect(await drafts()).toEqual(before)
    const by = college.people.reviewer.post('/api/library', {
      kind: 'image-set',
      was: 2,
      document: banners(),
    })
    expect((await by).status).toBe(403)
  })
  it.each([
    ['an image twice', banners('pier', 'pier')],
    ['no size', { ...banners('pier'), size: { width: 0, height: 100 } }],
    ['a size that nobody sees', { ...banners('pier'), size: { width: 100_000, height: 100 } }],
  ])('is refused with %s', async (_, document) => {
    expect((await put({ ...document, key: 'other' }, null, 'image-set')).status).toBe(400)
  })
})
