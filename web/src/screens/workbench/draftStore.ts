import { create } from 'zustand'
import {
  applyEdit,
  compareTemplates,
  weakenings,
  type EditProblem,
  type Template,
  type TemplateChange,
  type TemplateEdit,
} from '@wickerframe/core'
import type { EditClash, TemplateDraft } from '@wickerframe/contract'
import { ApiError, call } from '../../api/client.ts'
import { keepSteps, noSteps, stepsKept, type Step, type Steps } from './keptSteps.ts'

/** Two people set the same field: both values, until somebody decides. */
export interface OpenClash {
  edit: TemplateEdit
  clash: EditClash
}

/** A draft as it stands here, with what was done to it in this sitting. */
interface Held extends Steps {
  key: string
  draft: Template | null
  /** The version this layer is built on. */
  upper: Template | null
  revision: number
  mayEdit: boolean
  /** Edits made here and not yet answered by the server. */
  waiting: TemplateEdit[]
  saving: boolean
  savedAt: string | null
  problem: string | null
  clashes: OpenClash[]
  /** What others changed while this draft stood open. */
  fromOthers: TemplateChange[]
  changes: number
}

interface DraftState extends Held {
  open: (loaded: TemplateDraft) => void
  /** Makes edits at once, as one step of undo, and saves them; false, with the reason in `problem`, when they cannot be made. */
  edit: (...edits: TemplateEdit[]) => boolean
  undo: () => void
  redo: () => void
  decide: (clash: OpenClash, take: 'mine' | 'theirs') => void
  forget: () => void
  released: () => void
  /** Looks whether somebody else edited the draft, and shows it. */
  look: () => Promise<void>
  /** Whether the server has not yet answered to something that was done, to this template or to one that was open before. */
  isUnsaved: () => boolean
}

const nothingOpen: Held = {
  key: '',
  draft: null,
  upper: null,
  revision: 0,
  mayEdit: false,
  ...noSteps,
  waiting: [],
  saving: false,
  savedAt: null,
  problem: null,
  clashes: [],
  fromOthers: [],
  changes: 0,
}
/** What is shown of a draft that was loaded. */
const asLoaded = (loaded: TemplateDraft) => ({
  draft: loaded.draft,
  upper: loaded.upper,
  revision: loaded.draftRevision,
  savedAt: loaded.savedAt,
  mayEdit: loaded.mayEdit,
  changes: loaded.changesSinceRelease,
})

/** Whether the edits could be made now, one after another. */
const fit = (draft: Template, edits: readonly TemplateEdit[]): boolean => {
  let now = draft
  return edits.every((edit) => {
    const next = applyEdit(now, edit)
    if (next.ok) now = next.value.template
    return next.ok
  })
}
/**
 * What this tab knows of what was done before the page was loaded. What was sent and never came, while somebody else’s did, cannot
 * be taken back, so that the newest steps are tried.
 */
const stepsTo = ({ key, draftRevision, draft }: TemplateDraft): Steps => {
  const kept = stepsKept(key, draftRevision)
  return fit(draft, kept.done.at(-1)?.inverse ?? []) && fit(draft, kept.undone.at(-1)?.edits ?? [])
    ? kept
    : noSteps
}

const sameSittingMilliseconds = 4000

/** Typing in one field is one step of undo. */
const goesOn = (last: Step | undefined, edits: readonly TemplateEdit[], now: number): boolean => {
  const [a] = last?.edits ?? []
  const [b] = edits
  if (
    !last ||
    !a ||
    !b ||
    last.edits.length > 1 ||
    edits.length > 1 ||
    now - last.at > sameSittingMilliseconds
  )
    return false
  if (a.edit === 'set-block' && b.edit === 'set-block')
    return (
      a.part === b.part && a.block === b.block && a.field === b.field && typeof b.value === 'string'
    )
  return (
    a.edit === 'set-field' &&
    b.edit === 'set-field' &&
    a.part === b.part &&
    a.field.join('/') === b.field.join('/') &&
    typeof b.value === 'string'
  )
}

const wordsOf = (problem: EditProblem): string => {
  switch (problem.code) {
    case 'not-allowed':
      return `${problem.where}: found ${problem.problems[0]?.found ?? ''}; expected ${problem.problems[0]?.expected ?? 'something else'}`
    case 'gone':
      return `${problem.where} is not there any more`
    case 'clash':
      return `${problem.where} has changed meanwhile`
  }
}

const mostTogether = 400
const notSavedYet = 'Not saved yet'
const retryMilliseconds = 3000

/** Why what was done waits here and is sent again, by the status of a refusal that has nothing to do with it; null for others. */
const keptUntil = (status: number): string | null => {
  if (status === 401)
    return 'you are not signed in any more. What you did is kept here: sign in again in another tab, and it is saved.'
  if (status === 429)
    return 'the server has too much to do. What you did is kept here and saved in a moment.'
  return status === 0 || status >= 500
    ? 'the server cannot be reached. What you did is kept here and saved when it answers.'
    : null
}

/** The draft on the workbench, with undo and redo of the whole sitting; saved edit by edit. */
export const useDraftStore = create<DraftState>((set, get) => {
  /** The templates that were open before in this sitting: what was done to them goes on being saved. */
  const before = new Map<string, Held>()
  const of = (key: string): Held | undefined => (get().key === key ? get() : before.get(key))
  /** Of a draft that is saved only what was done to it is kept: there may be many, and large ones. */
  const leave = (held: Held): void =>
    void before.set(
      held.key,
      held.waiting.length > 0 ? held : { ...held, draft: null, upper: null },
    )
  const put = (key: string, what: Partial<Held>): void => {
    const held = before.get(key)
    if (get().key === key) set(what)
    else if (held) leave({ ...held, ...what })
  }
  /** Puts the edits that wait onto what the server has; those that cannot stand there become clashes. */
  const rebase = async (key: string): Promise<void> => {
    const loaded = await call('readDraft', { at: { template: key } })
    const held = of(key)
    if (!held) return
    let draft = loaded.draft
    const left: TemplateEdit[] = []
    const clashes: OpenClash[] = []
    const lost: string[] = []
    for (const edit of held.waiting) {
      const next = applyEdit(draft, edit)
      if (next.ok) {
        draft = next.value.template
        left.push(edit)
      } else if (next.problems.code === 'clash') clashes.push({ edit, clash: next.problems })
      else lost.push(wordsOf(next.problems))
    }
    put(key, {
      draft,
      upper: loaded.upper,
      revision: loaded.draftRevision,
      waiting: left,
      clashes: [...held.clashes, ...clashes],
      ...(lost.length > 0
        ? {
            problem: `Could not be kept, as somebody else edited the same place: ${lost.join('; ')}`,
          }
        : {}),
    })
  }
  const retries = new Map<string, ReturnType<typeof setTimeout>>()
  // Where it is not said which of several edits is refused, they are sent one by one: only that one is given up.
  let sentTogether = mostTogether
  const save = async (key: string): Promise<void> => {
    const held = of(key)
    if (!held || held.saving) return
    const { waiting, revision, done, undone } = held
    if (waiting.length === 0) {
      sentTogether = mostTogether
      return
    }
    const edits = waiting.slice(0, sentTogether)
    put(key, { saving: true })
    keepSteps(key, revision + 1, edits.length === waiting.length ? { done, undone } : null)
    try {
      const answer = await call('editDraft', { at: { template: key }, body: { revision, edits } })
      const now = of(key)
      const left = (now?.waiting ?? []).slice(edits.length)
      // Where nobody else came between, what stands here is what the server has.
      put(key, {
        revision: answer.revision,
        waiting: left,
        savedAt: answer.savedAt,
        saving: false,
        problem: now?.problem?.startsWith(notSavedYet) ? null : (now?.problem ?? null),
        changes: answer.changesSinceRelease + left.length,
        ...(left.length === 0 && answer.revision !== revision + 1 ? { draft: answer.draft } : {}),
      })
    } catch (cause) {
      const body = cause instanceof ApiError ? cause.body : null
      const keptFor = keptUntil(body?.status ?? 0)
      if (body && keptFor) {
        put(key, { saving: false, problem: `${notSavedYet}: ${keptFor}` })
        clearTimeout(retries.get(key))
        retries.set(
          key,
          setTimeout(() => void save(key), retryMilliseconds),
        )
        return
      }
      const now = of(key)
      if (!now) return
      const at = body?.edit
      const refused = at === undefined ? undefined : edits[at]
      if (refused && body?.clash)
        put(key, {
          waiting: now.waiting.filter((edit) => edit !== refused),
          clashes: [...now.clashes, { edit: refused, clash: body.clash }],
        })
      else if (!refused && edits.length > 1) sentTogether = 1
      else
        put(key, {
          problem: cause instanceof Error ? cause.message : String(cause),
          waiting: now.waiting.filter((edit) => edit !== (refused ?? edits[0])),
        })
      // Nothing is sent meanwhile: what is read could hold it already, and it would be taken for somebody else’s.
      await rebase(key).catch(() => undefined)
      put(key, { saving: false })
    }
    void save(key)
  }
  /**
   * Makes the edits here, all or none; they are saved when undo knows them.
   * @returns what takes them back, or null with the reason in `problem`
   */
  const make = (edits: readonly TemplateEdit[]): TemplateEdit[] | null => {
    const { draft, upper, waiting } = get()
    if (!draft || edits.length === 0) return null
    let now = draft
    const inverse: TemplateEdit[] = []
    for (const edit of edits) {
      const next = applyEdit(now, edit)
      if (!next.ok) {
        set({ problem: wordsOf(next.problems) })
        return null
      }
      now = next.value.template
      inverse.unshift(next.value.inverse)
    }
    const [weakened] = upper ? weakenings(upper, now) : []
    if (weakened) {
      set({ problem: `What stands above is not weakened here: ${weakened.expected}.` })
      return null
    }
    set({
      draft: now,
      waiting: [...waiting, ...edits],
      problem: null,
      changes: get().changes + edits.length,
    })
    return inverse
  }
  return {
    ...nothingOpen,
    open: (loaded) => {
      const { key } = loaded
      if (get().key !== key && get().key !== '') leave(get())
      const held = of(key)
      before.delete(key)
      // What was loaded a while ago is older than what stands here.
      if (held?.draft && (held.waiting.length > 0 || held.revision > loaded.draftRevision))
        set(held)
      else if (held) set({ ...held, ...asLoaded(loaded) })
      else set({ ...nothingOpen, ...stepsTo(loaded), key, ...asLoaded(loaded) })
    },
    edit: (...edits) => {
      const inverse = make(edits)
      if (!inverse) return false
      const now = Date.now()
      const last = get().done.at(-1)
      // What takes typing back starts from the last of it and goes to before the first.
      const [newest] = inverse
      const taken =
        last && newest && 'was' in newest && goesOn(last, edits, now)
          ? last.inverse.map((edit) => ('was' in edit ? { ...edit, was: newest.was } : edit))
          : null
      set({
        done: [
          ...(taken ? get().done.slice(0, -1) : get().done),
          { edits, inverse: taken ?? inverse, at: now },
        ],
        undone: [],
      })
      void save(get().key)
      return true
    },
    undo: () => {
      const last = get().done.at(-1)
      if (!last) return
      const inverse = make(last.inverse)
      if (!inverse) return
      set({ done: get().done.slice(0, -1), undone: [...get().undone, { ...last, edits: inverse }] })
      void save(get().key)
    },
    redo: () => {
      const last = get().undone.at(-1)
      const inverse = last ? make(last.edits) : null
      if (!last || !inverse) return
      set({
        undone: get().undone.slice(0, -1),
        done: [...get().done, { edits: last.edits, inverse, at: 0 }],
      })
      void save(get().key)
    },
    decide: (clash, take) => {
      set({ clashes: get().clashes.filter((open) => open !== clash) })
      if (take === 'mine' && 'was' in clash.edit)
        get().edit({ ...clash.edit, was: clash.clash.present ?? null })
    },
    forget: () => set({ problem: null, fromOthers: [] }),
    released: () => set({ changes: 0 }),
    look: async () => {
      const { key, waiting, saving, revision, draft } = get()
      if (key === '' || waiting.length > 0 || saving || !draft) return
      const there = await call('draftRevision', { at: { template: key } })
      if (
        get().key !== key ||
        there.revision <= revision ||
        get().waiting.length > 0 ||
        get().saving
      )
        return
      const loaded = await call('readDraft', { at: { template: key } })
      if (get().key !== key || get().waiting.length > 0 || get().saving) return
      set({
        draft: loaded.draft,
        upper: loaded.upper,
        revision: loaded.draftRevision,
        savedAt: loaded.savedAt,
        changes: loaded.changesSinceRelease,
        fromOthers: compareTemplates(draft, loaded.draft),
      })
    },
    isUnsaved: () => [get(), ...before.values()].some(({ waiting }) => waiting.length > 0),
  }
})
