import { z } from 'zod'
import { Id } from '../fields.ts'
import { defineChange } from '../kind.ts'
import { plain } from '../wording.ts'

const schema = z.strictObject({ change: z.literal('remove-item'), id: Id })

export const removeItem = defineChange('remove-item', schema, {
  apply({ id }, site) {
    const stand = site.item(id)
    if (!stand) return site.gone(id)
    const item = stand.child
    if (item.studentWork)
      return { code: 'student-work', message: `students have work in “${item.name}”, so it stays` }
    stand.list.splice(stand.index, 1)
    if (site.course.homePage === item.id) site.course.homePage = null
    return null
  },
  words: ({ id }, { nameOf }) => [plain(`${nameOf(id)} is removed`)],
  writes: () => ['remove-item'],
})
