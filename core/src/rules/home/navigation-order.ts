import { z } from 'zod'
import type { Change } from '../../course/index.ts'
import { fewestMoves } from '../../pair/index.ts'
import { aboutCourse, defineRule, type Verdict } from '../rule.ts'
import { mendedNavigation, pairedEntries } from './wantedNavigation.ts'

export const navigationOrder = defineRule({
  id: 'navigation-order',
  group: 'home page',
  title: 'The navigation stands in its order',
  why: 'An entry that stands elsewhere in every course is searched for in every course.',
  untold: 'Hidden entries, and where further entries stand.',
  strength: 'should',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 1,
  messages: { order: 'In the navigation {seen} stands out of its order.' },
  *check(context): Generator<Verdict> {
    const standing = pairedEntries(context)
      .flatMap((entry, rank) =>
        entry.found && !entry.found.hidden && !entry.wanted.hidden ? [{ ...entry, rank }] : [],
      )
      .sort((a, b) => a.place - b.place)
    if (standing.length < 2) {
      yield { subject: aboutCourse, outcome: 'inapplicable' }
      return
    }
    const moved = fewestMoves(standing.map(({ rank }) => rank)).flatMap(
      (i) => standing[i]?.wanted.label ?? [],
    )
    if (moved.length === 0) yield { subject: aboutCourse, outcome: 'passed' }
    else
      yield {
        subject: aboutCourse,
        outcome: 'failed',
        message: 'order',
        values: { seen: moved.map((label) => `“${label}”`).join(', ') },
        evidence: moved.map((text) => ({ kind: 'words', text }) as const),
        expected: standing
          .toSorted((a, b) => a.rank - b.rank)
          .map(({ wanted }) => wanted.label)
          .join(', '),
      }
  },
  mend: (_, context): Change[] => [
    { change: 'set-navigation', navigation: mendedNavigation(context) },
  ],
})
