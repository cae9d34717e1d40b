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
import { keepSteps, stepsKept, type Step, type Steps } from './keptSteps.ts'

/** Two people set the same field: both values, until somebody decides. */
export interface OpenClash {
  edit: TemplateEdit
  clash: EditClash
}

interface DraftState {
  key: string
  draft: Template | null
  /** The version this layer is built on. */
  upper: Template | null
  revision: number
  mayEdit: boolean
  done: Step[]
  undone: Step[]
  /** Edits made here and not yet answered by the server. */
  waiting: TemplateEdit[]
  saving: boolean
  savedAt: string | null
  problem: string | null
  clashes: OpenClash[]
  /** What others changed while this draft stood open. */
  fromOthers: TemplateChange[]
  changes: number
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
}

/** What was done to the templates that were open before in this sitting. */
const sittings = new Map<string, Steps>()

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
  /** Puts the edits that wait onto what the server has; those that cannot stand there become clashes. */
  const rebase = async (): Promise<void> => {
    const { key, waiting } = get()
    const loaded = await call('readDraft', { at: { template: key } })
    if (get().key !== key) return
    let draft = loaded.draft
    const left: TemplateEdit[] = []
    const clashes: OpenClash[] = []
    const lost: string[] = []
    for (const edit of [...waiting, ...get().waiting.slice(waiting.length)]) {
      const next = applyEdit(draft, edit)
      if (next.ok) {
        draft = next.value.template
        left.push(edit)
      } else if (next.problems.code === 'clash') clashes.push({ edit, clash: next.problems })
      else lost.push(wordsOf(next.problems))
    }
    set({
      draft,
      upper: loaded.upper,
      revision: loaded.draftRevision,
      waiting: left,
      clashes: [...get().clashes, ...clashes],
      ...(lost.length > 0
        ? {
            problem: `Could not be kept, as somebody else edited the same place: ${lost.join('; ')}`,
          }
        : {}),
    })
  }
  // Where it is not said which of several edits is refused, they are sent one by one: only that one is given up.
  let sentTogether = mostTogether
  const save = async (): Promise<void> => {
    const { saving, waiting, key, revision } = get()
    if (waiting.length === 0) sentTogether = mostTogether
    const edits = waiting.slice(0, sentTogether)
    if (saving || edits.length === 0) return
    set({ saving: true })
    try {
      const answer = await call('editDraft', { at: { template: key }, body: { revision, edits } })
      if (get().key !== key) return
      const left = get().waiting.slice(edits.length)
      // Where nobody else came between, what stands here is what the server has.
      set({
        revision: answer.revision,
        waiting: left,
        savedAt: answer.savedAt,
        saving: false,
        changes: answer.changesSinceRelease + left.length,
        ...(left.length === 0 && answer.revision !== revision + 1 ? { draft: answer.draft } : {}),
      })
      if (left.length === 0 && answer.revision === revision + 1)
        keepSteps(key, answer.revision, { done: get().done, undone: get().undone })
      void save()
    } catch (cause) {
      set({ saving: false })
      const body = cause instanceof ApiError ? cause.body : null
      const keptFor = keptUntil(body?.status ?? 0)
      if (body && keptFor) {
        set({ problem: `Not saved yet: ${keptFor}` })
        setTimeout(() => void save(), 3000)
        return
      }
      const at = body?.edit
      const refused = at === undefined ? undefined : edits[at]
      if (refused && body?.clash)
        set({
          waiting: get().waiting.filter((edit) => edit !== refused),
          clashes: [...get().clashes, { edit: refused, clash: body.clash }],
        })
      else if (!refused && edits.length > 1) sentTogether = 1
      else
        set({
          problem: cause instanceof Error ? cause.message : String(cause),
          waiting: get().waiting.filter((edit) => edit !== (refused ?? edits[0])),
        })
      await rebase().catch(() => undefined)
      void save()
    }
  }
  /** Makes the edits, all or none. @returns what takes them back, or null with the reason in `problem` */
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
    void save()
    return inverse
  }
  return {
    key: '',
    draft: null,
    upper: null,
    revision: 0,
    mayEdit: false,
    done: [],
    undone: [],
    waiting: [],
    saving: false,
    savedAt: null,
    problem: null,
    clashes: [],
    fromOthers: [],
    changes: 0,
    open: (loaded) => {
      const again = get().key === loaded.key
      if (!again && get().key !== '')
        sittings.set(get().key, { done: get().done, undone: get().undone })
      const { done, undone } =
        sittings.get(loaded.key) ?? stepsKept(loaded.key, loaded.draftRevision)
      if (again && (get().waiting.length > 0 || get().revision > loaded.draftRevision)) return
      set({
        key: loaded.key,
        draft: loaded.draft,
        upper: loaded.upper,
        revision: loaded.draftRevision,
        savedAt: loaded.savedAt,
        mayEdit: loaded.mayEdit,
        changes: loaded.changesSinceRelease,
        ...(again ? {} : { done, undone, waiting: [], problem: null, clashes: [], fromOthers: [] }),
      })
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
      return true
    },
    undo: () => {
      const last = get().done.at(-1)
      if (!last) return
      const inverse = make(last.inverse)
      if (inverse)
        set({
          done: get().done.slice(0, -1),
          undone: [...get().undone, { ...last, edits: inverse }],
        })
    },
    redo: () => {
      const last = get().undone.at(-1)
      const inverse = last ? make(last.edits) : null
      if (last && inverse)
        set({
          undone: get().undone.slice(0, -1),
          done: [...get().done, { edits: last.edits, inverse, at: 0 }],
        })
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
  }
})
