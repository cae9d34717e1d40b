import { z } from 'zod'
import { defineChange } from '../kind.ts'
import { plain } from '../wording.ts'

const schema = z.strictObject({
  change: z.literal('set-navigation'),
  navigation: z.array(z.strictObject({ label: z.string().max(300), hidden: z.boolean() })).max(100),
})

export const setNavigation = defineChange('set-navigation', schema, {
  apply({ navigation }, { course }) {
    course.navigation = navigation
    return null
  },
  words: ({ navigation }) => [
    plain(
      `The navigation becomes ${navigation.map(({ label, hidden }) => `${label}${hidden ? ' (hidden)' : ''}`).join(', ')}`,
    ),
  ],
  writes: () => ['course/navigation'],
})
