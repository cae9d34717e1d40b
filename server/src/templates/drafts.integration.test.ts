import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import type { Template, TemplateEdit } from '@wickerframe/core'
import { exampleTemplate } from '@wickerframe/core/testing'
import { startPrivateSchema, type PrivateSchema } from '../testing/privateSchema.testing.ts'
import type { Person } from '../people/people.ts'
import {
  addTemplate,
  draftOf,
  editDraft,
  findDraft,
  findDraftRevision,
  findVersion,
  isRetired,
  letContribute,
  listVersionNumbers,
  releaseDraft,
  retireVersion,
  useVersion,
} from './templates.ts'

let schema: PrivateSchema
let designer: Person
let contributor: Person
let reviewer: Person
const key = 'example-standard'
beforeAll(async () => {
  schema = await startPrivateSchema()
  designer = await schema.person('designer')
  contributor = await schema.person('contributor')
  reviewer = await schema.person('reviewer')
})
afterAll(() => schema.stop())
beforeEach(async () => {
  for (const table of ['version_uses', 'retired_versions', 'template_versions', 'templates'])
    await schema.pool.query(`DELETE FROM ${table}`)
  expect((await addTemplate(schema.pool, exampleTemplate(), designer.email)).state).toBe('added')
})

const retitled = (was: string, value: string): TemplateEdit => ({
  edit: 'set-field',
  part: null,
  field: ['title'],
  was,
  value,
})
const title = exampleTemplate().title
const summarised = (value: string, was = exampleTemplate().summary): TemplateEdit => ({
  edit: 'set-field',
  part: null,
  field: ['summary'],
  was,
  value,
})
const draft = async (): Promise<Template> => {
  const found = await findDraft(schema.pool, key, designer)
  if (!found) throw new Error('the draft is gone')
  return found.draft
}
const release = async (person = designer) =>
  releaseDraft(
    schema.pool,
    key,
    (await findDraftRevision(schema.pool, key)) ?? 0,
    'As agreed',
    person,
  )

describe('a draft', () => {
  it('is kept as it was brought in', async () => {
    expect(await draft()).toEqual(draftOf(exampleTemplate()))
  })
  it('of a key that is taken is not brought in over the other', async () => {
    const other = { ...exampleTemplate(), title: 'Another' }
    expect((await addTemplate(schema.pool, other, 'x')).state).toBe('taken')
    expect((await draft()).title).toBe(title)
  })
  it('takes edits of two people to different fields, whatever revision they knew', async () => {
    await editDraft(schema.pool, key, [retitled(title, 'Theirs')], designer)
    await editDraft(schema.pool, key, [summarised('Mine')], designer)
    expect(await draft()).toMatchObject({ title: 'Theirs', summary: 'Mine' })
  })
  it('refuses the second edit of one field with both values, and keeps the first', async () => {
    await editDraft(schema.pool, key, [retitled(title, 'Theirs')], designer)
    const outcome = await editDraft(schema.pool, key, [retitled(title, 'Mine')], designer)
    expect(outcome).toMatchObject({ state: 'refused', at: 0, problem: { code: 'clash' } })
    expect(JSON.stringify(outcome)).toContain('Theirs')
    expect((await draft()).title).toBe('Theirs')
  })
  it('takes all edits that are sent together, or none', async () => {
    const before = await draft()
    const outcome = await editDraft(
      schema.pool,
      key,
      [summarised('Mine'), retitled('never called so', 'Mine')],
      designer,
    )
    expect(outcome).toMatchObject({ state: 'refused', at: 1 })
    expect(await draft()).toEqual(before)
    expect(await findDraftRevision(schema.pool, key)).toBe(0)
  })
  it('edited by ten at once loses no edit but those of the same field', async () => {
    const outcomes = await Promise.all(
      Array.from({ length: 10 }, (_, i) =>
        editDraft(schema.pool, key, [retitled(title, `Title ${i}`)], designer),
      ),
    )
    const saved = outcomes.flatMap((outcome) => (outcome.state === 'saved' ? [outcome] : []))
    expect(saved).toHaveLength(1)
    expect((await draft()).title).toBe(saved[0]?.draft.title)
    expect(await findDraftRevision(schema.pool, key)).toBe(1)
  })
  it('is edited by its designers, and by contributors who were let in', async () => {
    const edit = (person: Person) =>
      editDraft(schema.pool, key, [summarised(`By ${person.roles.join()}`)], person)
    expect((await edit(reviewer)).state).toBe('not-allowed-to')
    expect((await edit(contributor)).state).toBe('not-allowed-to')
    expect(await letContribute(schema.pool, key, contributor.email)).toBe(true)
    expect((await edit(contributor)).state).toBe('saved')
    expect(await letContribute(schema.pool, key, contributor.email, false)).toBe(true)
    expect((await editDraft(schema.pool, key, [retitled(title, 'Mine')], contributor)).state).toBe(
      'not-allowed-to',
    )
  })
  it('lets only contributors in, and only to what is there', async () => {
    expect(await letContribute(schema.pool, key, reviewer.email)).toBe(false)
    expect(await letContribute(schema.pool, 'no-such', contributor.email)).toBe(false)
  })
  it('that is not there is missing, not empty', async () => {
    expect(await editDraft(schema.pool, 'no-such', [summarised('x')], designer)).toEqual({
      state: 'missing',
    })
    expect(await findDraft(schema.pool, 'no-such', designer)).toBeNull()
    expect(await findDraftRevision(schema.pool, 'no-such')).toBeNull()
  })
  it('are answered with when they were saved, by the clock of the institution', async () => {
    const outcome = await editDraft(schema.pool, key, [summarised('Mine')], designer)
    expect(outcome).toMatchObject({
      state: 'saved',
      savedAt: (await findDraft(schema.pool, key, designer))?.savedAt,
    })
  })
  it('leaves a line in the audit for what was done, none for what was refused', async () => {
    await schema.pool.query('DELETE FROM audit')
    await editDraft(schema.pool, key, [summarised('Mine')], designer)
    await editDraft(schema.pool, key, [retitled('never called so', 'x')], designer)
    expect(
      await schema.rows(`SELECT who, what, subject
        FROM audit`),
    ).toEqual([{ who: designer.email, what: 'draft edited', subject: key }])
  })
})

describe('releasing', () => {
  it('is told in how much the draft differs from it: what was undone is no change', async () => {
    await release()
    const before = (await findDraft(schema.pool, key, designer))?.draft.summary ?? ''
    const told = async (edit: TemplateEdit) => {
      const outcome = await editDraft(schema.pool, key, [edit], designer)
      return outcome.state === 'saved' ? outcome.changesSinceRelease : outcome.state
    }
    expect(await told(summarised('Later'))).toBe(1)
    expect(await told(summarised('Later still', 'Later'))).toBe(1)
    expect((await findDraft(schema.pool, key, designer))?.changesSinceRelease).toBe(1)
    expect(await told(summarised(before, 'Later still'))).toBe(0)
    expect((await findDraft(schema.pool, key, designer))?.changesSinceRelease).toBe(0)
  })
  it('makes a version that later edits do not touch', async () => {
    expect(await release()).toEqual({ state: 'released', version: 1 })
    await editDraft(schema.pool, key, [summarised('Later')], designer)
    expect((await findVersion(schema.pool, key, 1))?.document.summary).not.toBe('Later')
    expect(await release()).toEqual({ state: 'released', version: 2 })
    expect((await findVersion(schema.pool, key, 2))?.document.summary).toBe('Later')
  })
  it('of what is released already makes no second version', async () => {
    await release()
    expect(await release()).toEqual({ state: 'nothing-new', version: 1 })
  })
  it('is refused when somebody edited the draft since it was looked at', async () => {
    const looked = (await findDraftRevision(schema.pool, key)) ?? 0
    await editDraft(schema.pool, key, [summarised('Meanwhile')], designer)
    expect(await releaseDraft(schema.pool, key, looked, '', designer)).toEqual({
      state: 'stale',
      revision: looked + 1,
    })
    expect(await listVersionNumbers(schema.pool, key)).toEqual([])
  })
  it('by two at once makes one version', async () => {
    const outcomes = await Promise.all([release(), release(), release()])
    expect(outcomes.map(({ state }) => state).sort()).toEqual([
      'nothing-new',
      'nothing-new',
      'released',
    ])
    expect(await listVersionNumbers(schema.pool, key)).toEqual([1])
  })
})

describe('a version in use', () => {
  const use = (inUse: boolean, number = 1) =>
    useVersion(
      schema.pool,
      key,
      number,
      [{ department: 'NAV', modality: 'online', inUse }],
      designer.email,
    )
  const uses = () =>
    schema.rows<{ number: number }>(`SELECT number
      FROM version_uses
      ORDER BY number`)
  const twoVersions = async () => {
    await release()
    await editDraft(schema.pool, key, [summarised('Later')], designer)
    await release()
  }
  it('is one for each department and modality: the last that was said', async () => {
    await twoVersions()
    expect(await use(true, 1)).toBe(true)
    expect(await use(true, 2)).toBe(true)
    expect(await uses()).toEqual([{ number: 2 }])
    expect(await use(false, 2)).toBe(true)
    expect(await uses()).toEqual([])
  })
  it('is in use no more once it is retired, and cannot be put in use until it comes back', async () => {
    await twoVersions()
    await use(true, 1)
    expect(await retireVersion(schema.pool, key, 1, true, designer.email)).toBe(true)
    const version = await findVersion(schema.pool, key, 1)
    if (!version) throw new Error('a retired version is still there')
    expect(await isRetired(schema.pool, version)).toBe(true)
    expect(await uses()).toEqual([])
    expect(await use(true, 1)).toBe(false)
    expect(await listVersionNumbers(schema.pool, key)).toEqual([2])
    await retireVersion(schema.pool, key, 1, false, designer.email)
    expect(await use(true, 1)).toBe(true)
  })
  it('that is not there is neither used nor retired', async () => {
    expect(await use(true, 9)).toBe(false)
    expect(await retireVersion(schema.pool, key, 9, true, designer.email)).toBe(false)
  })
})
