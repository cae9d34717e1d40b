import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import {
  startPrivateCollege,
  type Client,
  type PrivateCollege,
} from '../testing/privateCollege.testing.ts'
import { recordAudit } from './audit.ts'

let college: PrivateCollege
let administrator: Client
beforeAll(async () => {
  college = await startPrivateCollege()
  administrator = await college.as(await college.person('administrator'))
  await college.pool.query('DELETE FROM audit')
  for (let i = 0; i < 230; i++)
    await recordAudit(college.pool, {
      who: i % 2 === 0 ? 'one_a@kestrelsound.example' : 'onexa@kestrelsound.example',
      what: i % 10 === 0 ? 'deployed' : 'draft edited',
      subject: `course ${i}`,
      from: { title: 'before' },
      to: i === 229 ? 'x'.repeat(5000) : { title: 'after' },
    })
})
afterAll(() => college.stop())
const page = async (query = '') => (await administrator.get(`/api/audit${query}`)).body

describe('the audit', () => {
  it('is told newest first, in pages that join without a gap', async () => {
    const subjects: string[] = []
    let before: number | null = null
    let pages = 0
    do {
      const { entries, before: older } = await page(before === null ? '' : `?before=${before}`)
      subjects.push(...entries.map(({ subject }: { subject: string }) => subject))
      before = older
      pages += 1
    } while (before !== null)
    expect(subjects).toEqual(Array.from({ length: 230 }, (_, i) => `course ${229 - i}`))
    expect(pages).toBe(3)
  })
  it('is narrowed by who, what and what to; % and _ stand for themselves', async () => {
    expect((await page('?what=deployed')).entries).toHaveLength(23)
    expect(
      (await page('?who=one_a')).entries.every(({ who }: { who: string }) =>
        who.startsWith('one_a'),
      ),
    ).toBe(true)
    expect((await page('?who=%25')).entries).toEqual([])
    expect((await page('?subject=course+22')).entries).toHaveLength(11)
    expect((await page('?what=draft+edited&subject=course+220')).entries).toEqual([])
  })
  it('shows long values shortened, and every kind of thing that was done', async () => {
    const { entries, kinds } = await page()
    expect(entries[0].to).toHaveLength(2000)
    expect(kinds).toEqual(['deployed', 'draft edited'])
  })
  it('is for administrators', async () => {
    for (const role of ['designer', 'contributor', 'instructor', 'reviewer'] as const)
      expect((await (await college.as(await college.person(role))).get('/api/audit')).status).toBe(
        403,
      )
  })
})
