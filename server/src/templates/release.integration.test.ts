import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { exampleTemplate } from '@wickerframe/core/testing'
import { startCheckedCollege, type CheckedCollege } from '../testing/privateCollege.testing.ts'

let college: CheckedCollege
beforeAll(async () => {
  college = await startCheckedCollege()
})
afterAll(() => college.stop())

/** Releases the draft with hosts that may be shown within pages. */
const releaseWith = async (was: string[] | null, hosts: string[]) => {
  const { designer } = college.people
  const { key } = exampleTemplate()
  const { draftRevision } = (await designer.get(`/api/templates/${key}`)).body
  const edits = [{ edit: 'set-field', part: null, field: ['frameHosts'], was, value: hosts }]
  const edited = await designer.post(`/api/templates/${key}/edits`, {
    revision: draftRevision,
    edits,
  })
  expect(edited.status).toBe(200)
  return designer.post(`/api/templates/${key}/release`, {
    revision: edited.body.revision,
    note: 'Films',
  })
}

describe('a template that would show the platform, or Wickerframe, within its own pages', () => {
  it('is not released until that host is out', async () => {
    const hosts = ['film.kestrelsound.example', 'wickerframe.example']
    const { status, body } = await releaseWith(null, hosts)
    expect([status, body.detail]).toEqual([
      409,
      expect.stringContaining('within pages from wickerframe.example'),
    ])
    expect((await releaseWith(hosts, ['film.kestrelsound.example'])).status).toBe(200)
  })
})
