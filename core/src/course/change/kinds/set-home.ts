import { z } from 'zod'
import { Id } from '../fields.ts'
import { defineChange } from '../kind.ts'
import { plain } from '../wording.ts'

const schema = z.strictObject({ change: z.literal('set-home'), item: Id })

export const setHome = defineChange('set-home', schema, {
  apply({ item }, site) {
    const home = site.item(item)
    if (!home) return site.gone(item)
    site.course.homePage = home.child.id
    return null
  },
  words: ({ item }, { nameOf }) => [plain(`${nameOf(item)} becomes the home page`)],
  writes: () => ['course/home'],
})
