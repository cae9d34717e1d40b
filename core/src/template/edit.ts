import { z } from 'zod'
import { failure, readDocument, schemasOf, success, type Result } from '../document/index.ts'
import { valueOf } from './edit/fields.ts'
import type { Edited, EditTraits } from './edit/kind.ts'
import { definedEdits } from './edit/kinds.ts'
import { applyOwnField, concernsItself } from './edit/kinds/set-field.ts'
import type { EditProblem } from './edit/problem.ts'
import { EditSite } from './edit/site.ts'
import { homePageKey, Template } from './template.ts'

export type { EditProblem } from './edit/problem.ts'

/** One edit of a draft. */
export const TemplateEdit = z.discriminatedUnion('edit', schemasOf(definedEdits))
export type TemplateEdit = z.output<typeof TemplateEdit>

const kinds: ReadonlyMap<string, EditTraits<TemplateEdit>> = new Map(
  definedEdits.map((defined): [string, EditTraits<TemplateEdit>] => [
    defined.edit,
    defined as EditTraits<TemplateEdit>,
  ]),
)

/** The inverse with what it replaces as the template was read: with what goes without saying filled in. */
const asRead = (inverse: TemplateEdit, site: EditSite): TemplateEdit => {
  if (inverse.edit === 'set-field') {
    const { part, field } = inverse
    const target =
      part === null ? site.template : part === homePageKey ? site.template.home : site.part(part)
    return { ...inverse, was: valueOf(target, field) ?? null }
  }
  if (inverse.edit !== 'set-block') return inverse
  const block = site.blocksOf(inverse.part)?.find(({ key }) => key === inverse.block)
  return { ...inverse, was: valueOf(block, [inverse.field]) ?? null }
}

/**
 * Makes one edit of a template.
 * @returns the new template and the edit that takes it back, or why it could not be made; the input is left as it was
 */
export const applyEdit = (
  template: Template,
  edit: TemplateEdit,
): Result<Edited<TemplateEdit>, EditProblem> => {
  if (edit.edit === 'set-field' && concernsItself(edit)) return applyOwnField(template, edit)
  const site = new EditSite(structuredClone(template))
  const applied = kinds.get(edit.edit)?.apply(edit, site)
  if (!applied) throw new Error(`there is no kind of edit named ${edit.edit}`)
  if (!applied.ok) return applied
  const read = readDocument(Template, site.template)
  if (!read.ok)
    return failure({
      code: 'not-allowed',
      where: site.nameOf('part' in edit && typeof edit.part === 'string' ? edit.part : null),
      problems: read.problems,
    })
  return success({
    template: read.value,
    inverse: asRead(applied.value as TemplateEdit, new EditSite(read.value)),
  })
}
