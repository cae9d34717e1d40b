import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import {
  applyEdit,
  compareTemplates,
  emptyTemplate,
  everyPart,
  newItem,
  type Template,
  type TemplateEdit,
} from '@wickerframe/core'
import type { TemplateDraft } from '@wickerframe/contract'
import { useDraftStore } from './draftStore.ts'
import { forgetSteps } from './keptSteps.ts'

/** A server that keeps one draft as the real one does, and can be made to fail. */
class Server {
  draft: Template
  revision = 3
  down = 0
  /** Statuses of its next answers to edits, which it does not make. */
  refuses: number[] = []
  released: Template
  constructor(draft: Template) {
    this.released = draft
    this.draft = draft
  }
  detail(): TemplateDraft {
    return {
      key: this.draft.key,
      title: this.draft.title,
      summary: '',
      appliesTo: this.draft.appliesTo,
      above: null,
      versions: [],
      draftRevision: this.revision,
      changesSinceRelease: 0,
      courses: 0,
      openComments: 0,
      mayEdit: true,
      mayRelease: true,
      draft: this.draft,
      savedAt: '2026-09-16T12:00:00Z',
      upper: null,
      contributors: [],
      designers: [],
    }
  }
  edit(edits: readonly TemplateEdit[]): Response {
    let now = this.draft
    for (const [at, edit] of edits.entries()) {
      const next = applyEdit(now, edit)
      if (!next.ok)
        return Response.json(
          {
            type: '',
            title: '',
            status: 409,
            detail: 'refused',
            edit: at,
            ...(next.problems.code === 'clash' ? { clash: next.problems } : {}),
          },
          { status: 409 },
        )
      now = next.value.template
    }
    this.draft = now
    this.revision += 1
    return Response.json({
      revision: this.revision,
      savedAt: '2026-09-16T12:05:00Z',
      changesSinceRelease: compareTemplates(this.released, now).length,
      draft: now,
    })
  }
  answer = async (input: RequestInfo | URL, init?: RequestInit): Promise<Response> => {
    if (this.down > 0) {
      this.down -= 1
      throw new TypeError('no connection')
    }
    const path = String(input)
    if (!path.includes(`/${this.draft.key}`))
      return Response.json({ type: '', title: '', status: 404, detail: 'gone' }, { status: 404 })
    const status = path.endsWith('/edits') ? this.refuses.shift() : undefined
    if (status !== undefined)
      return Response.json({ type: '', title: '', status, detail: 'not now' }, { status })
    if (path.endsWith('/edits'))
      return this.edit((JSON.parse(String(init?.body)) as { edits: TemplateEdit[] }).edits)
    return Response.json(path.endsWith('/revision') ? { revision: this.revision } : this.detail())
  }
}

let server: Server
let opened = 0
const store = () => useDraftStore.getState()
const settle = async () => {
  for (let i = 0; i < 8; i++) await vi.advanceTimersByTimeAsync(1000)
}
const set = (
  field: string,
  was: unknown,
  value: unknown,
  part: string | null = 'page',
): TemplateEdit => ({ edit: 'set-field', part, field: [field], was, value })
const page = (template: Template | null) =>
  everyPart(template ?? emptyTemplate('x', 'x')).find((part) => part.key === 'page')

beforeEach(() => {
  vi.useFakeTimers()
  server = new Server({
    ...emptyTemplate(`draft-${++opened}`, 'Draft'),
    parts: [newItem('page', 'page', 'Page')],
  })
  vi.stubGlobal('fetch', server.answer)
  store().open(server.detail())
})
/** What a browser keeps for a tab. */
const tab = (): Storage =>
  Object.create({
    getItem(this: Record<string, string>, name: string) {
      return this[name] ?? null
    },
    setItem(this: Record<string, string>, name: string, value: string) {
      this[name] = value
    },
    removeItem(this: Record<string, string>, name: string) {
      delete this[name]
    },
  }) as Storage
/** The page as it is after somebody loaded it anew. */
const reloaded = async () => {
  vi.resetModules()
  const { useDraftStore: anew } = await import('./draftStore.ts')
  anew.getState().open(server.detail())
  return anew.getState
}
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

describe('the draft on the workbench', () => {
  it('shows an edit at once and saves it', async () => {
    expect(store().edit(set('strength', 'must', 'may'))).toBe(true)
    expect([page(store().draft)?.strength, store().revision]).toEqual(['may', 3])
    await settle()
    expect([page(server.draft)?.strength, store().revision, store().waiting]).toEqual([
      'may',
      4,
      [],
    ])
  })
  it('makes several edits as one step of undo, all or none', async () => {
    store().edit(set('strength', 'must', 'may'), set('name', 'Page', 'Leaf'))
    expect(
      store().edit(set('strength', 'may', 'should'), set('name', 'nothing like it', 'Tree')),
    ).toBe(false)
    expect(page(store().draft)).toMatchObject({ strength: 'may', name: 'Leaf' })
    store().undo()
    await settle()
    expect(page(server.draft)).toMatchObject({ strength: 'must', name: 'Page' })
    store().redo()
    await settle()
    expect(page(server.draft)).toMatchObject({ strength: 'may', name: 'Leaf' })
  })
  it('counts what differs from the last version: what is undone is no change', async () => {
    store().edit(set('strength', 'must', 'may'))
    store().edit(set('audience', 'students', 'staff'))
    await settle()
    expect(store().changes).toBe(2)
    store().undo()
    await settle()
    expect(store().changes).toBe(1)
    expect(store().savedAt).toBe('2026-09-16T12:05:00Z')
  })
  it('takes typing in one field back in one step', () => {
    for (const [was, now] of [
      ['Page', 'Pa'],
      ['Pa', 'Pag'],
      ['Pag', 'Pages'],
    ] as const)
      store().edit(set('name', was, now))
    expect(store().done).toHaveLength(1)
    store().undo()
    expect(page(store().draft)?.name).toBe('Page')
    store().redo()
    expect(page(store().draft)?.name).toBe('Pages')
  })
  it('keeps what was done while the server cannot be reached, and saves it when it answers', async () => {
    server.down = 2
    store().edit(set('strength', 'must', 'may'))
    await vi.advanceTimersByTimeAsync(100)
    expect(store().problem).toContain('kept here')
    store().edit(set('name', 'Page', 'Leaf'))
    await settle()
    expect(page(server.draft)).toMatchObject({ strength: 'may', name: 'Leaf' })
  })
  it.each([
    [401, /sign in again/],
    [429, /too much to do/],
    [503, /cannot be reached/],
  ])(
    'keeps what was done when it is refused with %i, which has nothing to do with it',
    async (status, words) => {
      server.refuses = [status, status]
      store().edit(set('strength', 'must', 'may'))
      await vi.advanceTimersByTimeAsync(100)
      expect([store().problem, store().waiting]).toEqual([
        expect.stringMatching(words),
        [set('strength', 'must', 'may')],
      ])
      store().edit(set('name', 'Page', 'Leaf'))
      await settle()
      expect(page(server.draft)).toMatchObject({ strength: 'may', name: 'Leaf' })
      expect(store().waiting).toEqual([])
    },
  )
  it('gives up only what is refused, also where it is not said which of several', async () => {
    server.refuses = [503, 400, 400]
    store().edit(set('strength', 'must', 'may'))
    await vi.advanceTimersByTimeAsync(100)
    store().edit(set('name', 'Page', 'Leaf'))
    await settle()
    expect(page(server.draft)).toMatchObject({ strength: 'must', name: 'Leaf' })
    expect([page(store().draft)?.strength, store().problem]).toEqual(['must', 'not now'])
  })
  it('keeps both edits of two people on different fields', async () => {
    server.edit([set('name', 'Page', 'Theirs')])
    store().edit(set('strength', 'must', 'may'))
    await settle()
    expect(page(store().draft)).toMatchObject({ strength: 'may', name: 'Theirs' })
    expect(store().clashes).toEqual([])
  })
  it('on the same field shows both values, loses no other edit, and puts what is decided', async () => {
    server.edit([set('strength', 'must', 'should')])
    store().edit(set('strength', 'must', 'may'))
    store().edit(set('name', 'Page', 'Mine'))
    await settle()
    expect(store().clashes.map((clash) => [clash.clash.present, clash.clash.wanted])).toEqual([
      ['should', 'may'],
    ])
    expect(page(server.draft)).toMatchObject({ strength: 'should', name: 'Mine' })
    const [clash] = store().clashes
    if (clash) store().decide(clash, 'mine')
    await settle()
    expect([page(server.draft)?.strength, store().clashes]).toEqual(['may', []])
  })
  it('takes nothing of one’s own for somebody else’s, also what is typed while a clash is looked into', async () => {
    vi.stubGlobal('fetch', async (...asked: Parameters<Server['answer']>) => {
      // What is read is as of its answer; what is edited is so at once, and answered later.
      const isRead = !String(asked[0]).endsWith('/edits')
      if (isRead) await new Promise((resolve) => setTimeout(resolve, 1000))
      const answer = await server.answer(...asked)
      if (!isRead) await new Promise((resolve) => setTimeout(resolve, 900))
      return answer
    })
    server.edit([set('strength', 'must', 'should')])
    store().edit(set('strength', 'must', 'may'))
    await vi.advanceTimersByTimeAsync(1400)
    const part = newItem('page', 'second', 'Second')
    store().edit({ edit: 'add-part', parent: null, at: 1, part })
    await settle()
    expect([store().problem, store().clashes.map(({ clash }) => clash.wanted)]).toEqual([
      null,
      ['may'],
    ])
    const keys = (template: Template | null) => template?.parts.map(({ key }) => key)
    expect([keys(server.draft), keys(store().draft)]).toEqual([
      ['page', 'second'],
      ['page', 'second'],
    ])
  })
  it('looks whether somebody else edited it, and says what', async () => {
    server.edit([set('name', 'Page', 'Theirs')])
    await store().look()
    expect(store().fromOthers.map((other) => other.words)).toEqual(['named Page, now Theirs'])
    expect(page(store().draft)?.name).toBe('Theirs')
  })
  it('remembers what was done to each template of the sitting', () => {
    store().edit(set('strength', 'must', 'may'))
    const first = server.detail()
    store().open({
      ...first,
      key: `${first.key}-other`,
      draft: emptyTemplate(`${first.key}-other`, 'Other'),
    })
    expect(store().done).toEqual([])
    store().open(first)
    expect(store().done).toHaveLength(1)
  })
  it('says nothing of saving any more once it is saved, and asks no more often than before', async () => {
    const asked = vi.fn(server.answer)
    vi.stubGlobal('fetch', asked)
    server.down = 30
    for (const [was, name] of [
      ['Page', 'A'],
      ['A', 'B'],
      ['B', 'C'],
      ['C', 'D'],
    ]) {
      store().edit(set('name', was, name))
      await vi.advanceTimersByTimeAsync(100)
    }
    expect(store().problem).toContain('Not saved yet')
    asked.mockClear()
    await vi.advanceTimersByTimeAsync(30_000)
    expect(asked.mock.calls.length).toBeLessThanOrEqual(10)
    server.down = 0
    await settle()
    expect([page(server.draft)?.name, store().problem]).toEqual(['D', null])
  })
})

describe('where another template was opened before the answer came', () => {
  let other: Server
  let store: typeof useDraftStore.getState
  beforeEach(async () => {
    store = await reloaded()
    other = new Server(emptyTemplate(`${server.draft.key}-other`, 'Other'))
    vi.stubGlobal('fetch', async (...asked: Parameters<Server['answer']>) =>
      (String(asked[0]).includes(other.draft.key) ? other : server).answer(...asked),
    )
  })
  it('what was done to both is saved', async () => {
    store().edit(set('strength', 'must', 'may'))
    store().edit(set('name', 'Page', 'Leaf'))
    store().open(other.detail())
    store().edit(set('title', 'Other', 'Another', null))
    expect(store().isUnsaved()).toBe(true)
    await settle()
    expect(page(server.draft)).toMatchObject({ name: 'Leaf', strength: 'may' })
    expect([other.draft.title, store().draft?.title]).toEqual(['Another', 'Another'])
    expect(store().isUnsaved()).toBe(false)
    store().open(server.detail())
    expect([page(store().draft)?.name, store().done.length]).toEqual(['Leaf', 2])
  })
  it('it is saved when the server answers again, and stands there meanwhile', async () => {
    server.down = 4
    const loaded = server.detail()
    store().edit(set('name', 'Page', 'Leaf'))
    store().open(other.detail())
    await vi.advanceTimersByTimeAsync(4000)
    expect([store().isUnsaved(), store().waiting, store().problem]).toEqual([true, [], null])
    store().open(loaded)
    expect([page(store().draft)?.name, store().problem]).toEqual([
      'Leaf',
      expect.stringContaining('Not saved yet'),
    ])
    await settle()
    expect([page(server.draft)?.name, store().problem]).toEqual(['Leaf', null])
  })
  it('what clashes there is decided when it is opened again', async () => {
    server.edit([set('name', 'Page', 'Theirs')])
    store().edit(set('name', 'Page', 'Mine'))
    store().open(other.detail())
    await settle()
    expect(store().clashes).toEqual([])
    store().open(server.detail())
    expect(store().clashes.map(({ clash }) => [clash.present, clash.wanted])).toEqual([
      ['Theirs', 'Mine'],
    ])
  })
})

describe('after the page was loaded anew', () => {
  it('undo and redo go on where they were', async () => {
    vi.stubGlobal('sessionStorage', tab())
    store().edit(set('strength', 'must', 'may'))
    store().edit(set('name', 'Page', 'Leaf'))
    store().undo()
    await settle()
    const anew = await reloaded()
    anew().redo()
    expect(page(anew().draft)).toMatchObject({ name: 'Leaf', strength: 'may' })
    anew().undo()
    anew().undo()
    await settle()
    expect(page(server.draft)).toMatchObject({ name: 'Page', strength: 'must' })
  })
  it('nothing is taken back that somebody else built upon meanwhile, or of another draft', async () => {
    vi.stubGlobal('sessionStorage', tab())
    store().edit(set('strength', 'must', 'may'))
    await settle()
    server.edit([set('name', 'Page', 'Theirs')])
    expect((await reloaded())().done).toEqual([])
  })
  describe('before the answer to the last of it came', () => {
    /** No answer comes from now on, until the page is loaded anew. */
    const noAnswer = (does: 'saves' | 'never hears') =>
      vi.stubGlobal('fetch', async (...asked: Parameters<Server['answer']>) => {
        if (does === 'saves') await server.answer(...asked)
        return new Promise(() => undefined)
      })
    beforeEach(async () => {
      vi.stubGlobal('sessionStorage', tab())
      store().edit(set('strength', 'must', 'may'))
      await settle()
    })
    it.each([
      ['saves', 'may', 'Leaf', 'Page'],
      ['never hears', 'must', 'Page', 'Page'],
    ] as const)(
      'undo goes on from what the server has: it %s',
      async (does, strength, has, back) => {
        noAnswer(does)
        store().edit(set('name', 'Page', 'Leaf'))
        await settle()
        expect(page(server.draft)?.name).toBe(has)
        const anew = await reloaded()
        anew().undo()
        expect(page(anew().draft)).toMatchObject({ name: back, strength })
      },
    )
    it('and of an undo', async () => {
      noAnswer('saves')
      store().undo()
      await settle()
      const anew = await reloaded()
      expect(anew().done).toEqual([])
      anew().redo()
      expect(page(anew().draft)?.strength).toBe('may')
    })
    it('nothing is taken back that never came, where somebody else’s did', async () => {
      noAnswer('never hears')
      store().edit(set('name', 'Page', 'Leaf'))
      await settle()
      server.edit([set('name', 'Page', 'Theirs')])
      expect((await reloaded())().done).toEqual([])
    })
    it('nothing half made is taken back', async () => {
      noAnswer('saves')
      const names = ['Page', ...Array.from({ length: 401 }, (_, i) => `Name ${i}`)]
      store().edit(...names.slice(1).map((name, i) => set('name', names[i], name)))
      await settle()
      expect(page(server.draft)?.name).toBe('Name 399')
      expect((await reloaded())().done).toEqual([])
    })
  })
  it('nothing is left in the tab for who signs in next', async () => {
    vi.stubGlobal('sessionStorage', tab())
    store().edit(set('strength', 'must', 'may'))
    await settle()
    forgetSteps()
    expect((await reloaded())().done).toEqual([])
  })
  it('a browser that keeps nothing, or has no room, only forgets', async () => {
    const full = tab()
    Object.getPrototypeOf(full).setItem = () => {
      throw new DOMException('no room', 'QuotaExceededError')
    }
    vi.stubGlobal('sessionStorage', full)
    store().edit(set('strength', 'must', 'may'))
    await settle()
    expect(page(server.draft)?.strength).toBe('may')
    expect((await reloaded())().done).toEqual([])
  })
  it('the last steps are kept where all of them would be too much', async () => {
    vi.stubGlobal('sessionStorage', tab())
    const long = 'x'.repeat(30_000)
    for (let i = 0; i < 40; i++)
      store().edit({
        edit: 'add-part',
        parent: null,
        at: 0,
        part: {
          ...newItem('page', `p${i}`, `P${i}`),
          blocks: [{ kind: 'fixed-text', key: 't', strength: 'must', html: `<p>${long}</p>` }],
        },
      })
    await settle()
    const anew = await reloaded()
    expect(anew().done.length).toBeGreaterThan(5)
    expect(anew().done.length).toBeLessThan(40)
    anew().undo()
    await settle()
    expect(everyPart(server.draft).map(({ key }) => key)).not.toContain('p39')
    expect(everyPart(server.draft).map(({ key }) => key)).toContain('p38')
  })
})
