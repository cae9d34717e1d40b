import { create } from 'zustand'
import { applyEdit, type Template, type TemplateEdit } from '@wickerframe/core'
import type { EditClash } from '@wickerframe/contract'
import { ApiError, post } from '../../api/client.ts'

interface Done {
  edit: TemplateEdit
  inverse: TemplateEdit
}

interface DraftState {
  key: string
  draft: Template | null
  revision: number
  mayEdit: boolean
  done: Done[]
  undone: Done[]
  /** Edits made here and not yet answered by the server. */
  waiting: TemplateEdit[]
  saving: boolean
  savedAt: string | null
  problem: string | null
  clash: EditClash | null
  changes: number
  open: (key: string, draft: Template, revision: number, savedAt: string, mayEdit: boolean, changes: number) => void
  /** Makes an edit at once and saves it; false, with the reason in `problem`, when it cannot be made. */
  edit: (edit: TemplateEdit) => boolean
  undo: () => void
  redo: () => void
  forgetProblem: () => void
  released: () => void
}

/** The draft on the workbench, with undo and redo of the whole sitting; saved edit by edit. */
export const useDraftStore = create<DraftState>((set, get) => {
  const save = async (): Promise<void> => {
    const { saving, waiting, key, revision } = get()
    const edits = waiting
    if (saving || edits.length === 0) return
    set({ saving: true })
    try {
      const answer = await post<{ revision: number; draft: Template }>(`/api/templates/${key}/edits`, { revision, edits })
      if (get().key !== key) return
      const left = get().waiting.slice(edits.length)
      set({ revision: answer.revision, waiting: left, savedAt: new Date().toISOString(), saving: false, ...(left.length === 0 ? { draft: answer.draft } : {}) })
      void save()
    } catch (cause) {
      set({ saving: false })
      if (cause instanceof ApiError && cause.body.status === 0) {
        set({ problem: 'Not saved yet: the server cannot be reached. What you did is kept here and saved when it answers.' })
        setTimeout(() => void save(), 3000)
        return
      }
      const clash = cause instanceof ApiError ? (cause.body.clash ?? null) : null
      set({ problem: cause instanceof Error ? cause.message : String(cause), clash, waiting: [] })
    }
  }
  const make = (edit: TemplateEdit): TemplateEdit | null => {
    const { draft, waiting } = get()
    if (!draft) return null
    const next = applyEdit(draft, edit)
    if (!next.ok) {
      const { problems } = next
      set({ problem: problems.code === 'not-allowed' ? `${problems.where}: ${problems.problems[0]?.expected ?? 'not allowed'}` : `${problems.where} is not there any more` })
      return null
    }
    set({ draft: next.value.template, waiting: [...waiting, edit], problem: null, changes: get().changes + 1 })
    void save()
    return next.value.inverse
  }
  return {
    key: '', draft: null, revision: 0, mayEdit: false, done: [], undone: [], waiting: [], saving: false, savedAt: null, problem: null, clash: null, changes: 0,
    open: (key, draft, revision, savedAt, mayEdit, changes) => set({ key, draft, revision, savedAt, mayEdit, changes, done: [], undone: [], waiting: [], problem: null, clash: null }),
    edit: (edit) => {
      const inverse = make(edit)
      if (inverse) set({ done: [...get().done, { edit, inverse }], undone: [] })
      return inverse !== null
    },
    undo: () => {
      const last = get().done.at(-1)
      if (last && make(last.inverse)) set({ done: get().done.slice(0, -1), undone: [...get().undone, last] })
    },
    redo: () => {
      const last = get().undone.at(-1)
      if (last && make(last.edit)) set({ undone: get().undone.slice(0, -1), done: [...get().done, last] })
    },
    forgetProblem: () => set({ problem: null, clash: null }),
    released: () => set({ changes: 0 }),
  }
})
