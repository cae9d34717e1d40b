import { z } from 'zod'
import { addressOf, Line } from '../document/index.ts'
import { Key, Strength } from './words.ts'

/** Places that every platform has in a course, and what people call them. */
export const navigationPlaces = {
  home: 'the home page',
  contents: 'the contents',
  announcements: 'the announcements',
  discussions: 'the discussions',
  grades: 'the grades',
  people: 'the people of the course',
  calendar: 'the calendar',
} as const
export type NavigationPlace = keyof typeof navigationPlaces

const aPlace = `place:(?:${Object.keys(navigationPlaces).join('|')})`
const anAddress = 'https?://[^\\s<>"]+'

/**
 * Whether it may be said to lead there on a platform: `item:` and the id of a module or item, `place:` and one of the places, or
 * an address, inside the course or out of it, at which nothing runs.
 */
export const isNavigationAddress = (to: string): boolean =>
  /^(?:item|place):\S+$/.test(to) || addressOf(to) !== null

/** Where an entry of a template leads. */
export const NavigationTarget = z
  .string()
  .regex(
    new RegExp(`^(?:part:[a-z0-9]+(?:-[a-z0-9]+)*|${aPlace}|${anAddress})$`),
    `part: and the key of a part, place: and one of ${Object.keys(navigationPlaces).join(', ')}, or an address with https://`,
  )
  .max(1000)

export const NavigationEntry = z.strictObject({
  key: Key,
  label: Line(100),
  hidden: z.boolean().default(false),
  to: NavigationTarget.optional().describe(
    'A part (part:KEY), a place every platform has (place:NAME), or an address; without it, what the platform has under that name',
  ),
  strength: Strength.default('should'),
})
export type NavigationEntry = z.output<typeof NavigationEntry>

/** What stands after a scheme such as `part:` in a target; null where it is of another kind. */
export const targetIn = (scheme: 'part' | 'place' | 'item', to: string | undefined) =>
  to?.startsWith(`${scheme}:`) ? to.slice(scheme.length + 1) : null

/** Where a target leads, in words. @param nameOf names a part, or what stands on the platform; null where there is none */
export const targetWords = (to: string, nameOf: (key: string) => string | null): string => {
  const place = targetIn('place', to)
  if (place !== null) return navigationPlaces[place as NavigationPlace] ?? place
  const key = targetIn('part', to) ?? targetIn('item', to)
  return key === null ? to : (nameOf(key) ?? 'what is not there')
}

/** Entries in words, in order: “Home (to the home page), Files (hidden)”. */
export const navigationWords = (
  navigation: readonly { label: string; hidden: boolean; to?: string | undefined }[],
  nameOf: (key: string) => string | null,
): string =>
  navigation
    .map(
      ({ label, hidden, to }) =>
        `${label}${to === undefined ? '' : ` (to ${targetWords(to, nameOf)})`}${hidden ? ' (hidden)' : ''}`,
    )
    .join(', ')
