import { act } from '@testing-library/react'
import { applyEdit, compareTemplates, type Template, type TemplateEdit } from '@wickerframe/core'
import { useDraftStore } from '../screens/workbench/draftStore.ts'
import { templateDraft } from './answers.testing.ts'
import { Refusal, serve, type Answers, type Asked } from './server.testing.ts'

/**
 * Opens a draft in the workbench, on a server that keeps it as the real one does.
 * @param answers what it answers besides
 * @param present what stands on the server, where somebody else edited it since
 */
export const openDraft = (
  draft: Template,
  {
    mayEdit = true,
    present = draft,
    answers = {},
  }: { mayEdit?: boolean; present?: Template; answers?: Answers } = {},
): { onServer: () => Template; asked: Asked[] } => {
  let kept = present
  let revision = 1
  const asked = serve({
    editDraft: ({ body }) => {
      for (const edit of (body as { edits: TemplateEdit[] }).edits) {
        const next = applyEdit(kept, edit)
        if (!next.ok)
          throw new Refusal(409, 'refused', {
            edit: 0,
            ...(next.problems.code === 'clash' ? { clash: next.problems } : {}),
          })
        kept = next.value.template
      }
      revision += 1
      return {
        revision,
        savedAt: '2026-09-16T12:00:00Z',
        changesSinceRelease: compareTemplates(draft, kept).length,
        draft: kept,
      }
    },
    readDraft: () => templateDraft(kept, { draftRevision: revision }),
    draftRevision: () => ({ revision }),
    ...answers,
  })
  act(() => useDraftStore.getState().open(templateDraft(draft, { mayEdit })))
  return { onServer: () => kept, asked }
}
