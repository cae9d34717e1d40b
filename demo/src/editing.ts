import { applyEdit, type Block, type Template, type TemplateEdit } from '@wickerframe/core'

/** A template after edits of its people. */
export const edited = (template: Template, edits: readonly TemplateEdit[]): Template =>
  edits.reduce((now, edit) => {
    const next = applyEdit(now, edit)
    if (!next.ok)
      throw new Error(
        `the demo’s edit ${JSON.stringify(edit).slice(0, 120)}: ${JSON.stringify(next.problems)}`,
      )
    return next.value.template
  }, template)
export const fixed = (key: string, html: string): Block => ({
  kind: 'fixed-text',
  key,
  strength: 'must',
  html,
})
export const set = (
  part: string | null,
  field: string[],
  was: unknown,
  value: unknown,
): TemplateEdit => ({ edit: 'set-field', part, field, was, value })
