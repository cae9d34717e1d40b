import { z } from 'zod'
import { shownOf } from '../../../files/index.ts'
import { ItemKind } from '../../../template/index.ts'
import type { CourseItem } from '../../course.ts'
import { At, ClientId, Id, ItemFields } from '../fields.ts'
import { defineChange } from '../kind.ts'
import { insert } from '../site.ts'
import { writeQuestions } from '../writeQuestions.ts'

const schema = z.strictObject({
  change: z.literal('create-item'),
  clientId: ClientId,
  module: Id.nullable(),
  at: At,
  kind: ItemKind,
  fields: ItemFields.required({ name: true }),
})

export const createItem = defineChange('create-item', schema, {
  apply({ clientId, module, at, kind, fields }, site) {
    const list = site.listOf('item', module)
    if (!list) return site.gone(module ?? '')
    const id = site.mint(clientId, 'item')
    const item: CourseItem = {
      id,
      kind,
      name: fields.name,
      published: fields.published ?? true,
      staffOnly: fields.staffOnly ?? false,
      opensAt: fields.opensAt ?? null,
      dueAt: fields.dueAt ?? null,
      closesAt: fields.closesAt ?? null,
      points: fields.points ?? null,
      category: fields.category ?? null,
      html: fields.html ?? null,
      url: site.hand.urlOf(id),
      target: fields.target ?? null,
      ...(fields.work ? { work: fields.work } : {}),
      ...(fields.rubric ? { rubric: fields.rubric } : {}),
      ...(kind === 'assessment' ? { questions: [] } : {}),
      ...(kind === 'file' ? { file: fields.file ? shownOf(fields.file) : null } : {}),
      ...(fields.carried ? { carried: fields.carried } : {}),
      studentWork: false,
    }
    const refusal = fields.questions ? writeQuestions(item, fields.questions, site) : null
    if (refusal) return refusal
    if (fields.html !== undefined) site.writtenPages.push(item)
    insert(list, at, item)
    return null
  },
  words: ({ module, fields }, { nameOf }) => [
    {
      says: `“${fields.name}” is made in ${nameOf(module)}, as the template has it`,
      text: fields.html ? { before: '', after: fields.html } : null,
    },
  ],
  writes: ({ module }) => [`order/${module}`],
})
