import { z } from 'zod'
import { shownOf } from '../../../files/index.ts'
import { Id, ItemFields } from '../fields.ts'
import { fieldWords } from '../fieldWords.ts'
import { defineChange } from '../kind.ts'
import { setOrDrop } from '../site.ts'
import { writeQuestions } from '../writeQuestions.ts'

const schema = z.strictObject({ change: z.literal('set-item'), id: Id, fields: ItemFields })

export const setItem = defineChange('set-item', schema, {
  apply(change, site) {
    const item = site.item(change.id)?.child
    if (!item) return site.gone(change.id)
    const { work, rubric, questions, file, ...fields } = change.fields
    // Whoever plans a change of where it leads may not have seen the work that came in meanwhile.
    if (fields.target !== undefined && fields.target !== item.target && item.studentWork)
      return {
        code: 'student-work',
        message: `students have work in “${item.name}”, so it leads where it led`,
      }
    const refusal = questions ? writeQuestions(item, questions, site) : null
    if (refusal) return refusal
    Object.assign(item, fields)
    if (file !== undefined) item.file = file && shownOf(file)
    setOrDrop(item, 'work', work)
    setOrDrop(item, 'rubric', rubric)
    if (fields.html !== undefined) site.writtenPages.push(item)
    return null
  },
  words: ({ id, fields }, wording) => fieldWords(id, fields, wording),
  writes: ({ id, fields }) => Object.keys(fields).map((field) => `${id}/${field}`),
})
