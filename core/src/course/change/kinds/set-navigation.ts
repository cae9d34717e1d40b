import { z } from 'zod'
import { isNavigationAddress, navigationWords, targetIn } from '../../../template/index.ts'
import { defineChange } from '../kind.ts'
import { plain } from '../wording.ts'

const schema = z.strictObject({
  change: z.literal('set-navigation'),
  navigation: z
    .array(
      z.strictObject({
        label: z.string().max(300),
        hidden: z.boolean(),
        to: z
          .string()
          .max(2000)
          .refine(isNavigationAddress, 'an address that nothing runs at')
          .optional()
          .describe(
            'item: and an id or the reference of what is created, place:NAME, or an address',
          ),
      }),
    )
    .max(100),
})

export const setNavigation = defineChange('set-navigation', schema, {
  apply({ navigation }, site) {
    // What leads nowhere already may stay so: it is somebody's own.
    const before = new Set(site.course.navigation.map(({ to }) => to))
    const gone = navigation
      .filter(({ to }) => !before.has(to))
      .map(({ to }) => targetIn('item', to))
      .find((id) => id !== null && !site.has(id))
    if (typeof gone === 'string') return site.gone(gone)
    site.course.navigation = navigation.map((entry) => {
      const id = targetIn('item', entry.to)
      return id === null ? entry : { ...entry, to: `item:${site.idOf(id)}` }
    })
    return null
  },
  words: ({ navigation }, { nameOf }) => [
    plain(`The navigation becomes ${navigationWords(navigation, nameOf)}`),
  ],
  writes: () => ['course/navigation'],
})
