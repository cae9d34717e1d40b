import { exampleTemplate } from '../rules/example/exampleCourse.ts'
import { applyEdit, type Template, type TemplateEdit } from '../template/index.ts'

/** The example after some edits. */
export const edited = (...edits: TemplateEdit[]): Template =>
  edits.reduce((now, edit) => {
    const next = applyEdit(now, edit)
    if (!next.ok) throw new Error(JSON.stringify(next.problems))
    return next.value.template
  }, exampleTemplate())
