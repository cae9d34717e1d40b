import { z } from 'zod'
import type { Change } from '../../course/index.ts'
import { defineRule, type Verdict } from '../rule.ts'
import { mendedNavigation, pairedEntries } from './wantedNavigation.ts'

export const navigationEntries = defineRule({
  id: 'navigation-entries',
  group: 'home page',
  title: 'The navigation has its entries',
  why: 'Students who know where grades stand in one course do not find them in the next.',
  untold:
    'Further entries of the instructor’s own, and hidden entries that are not there: nobody sees them either way.',
  strength: 'should',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 1,
  messages: { missing: 'The navigation has no “{label}”.' },
  *check(context): Generator<Verdict> {
    for (const { wanted, found, told } of pairedEntries(context)) {
      if (found) yield { ...told, outcome: 'passed' }
      // A hidden entry that is not there is not seen either.
      else if (wanted.hidden) yield { ...told, outcome: 'inapplicable' }
      else
        yield {
          ...told,
          outcome: 'failed',
          message: 'missing',
          values: { label: wanted.label },
          evidence: [{ kind: 'count', text: `no ${wanted.label}` }],
          expected: wanted.label,
          together: 'navigation',
        }
    }
  },
  mend: (_, context): Change[] => [
    { change: 'set-navigation', navigation: mendedNavigation(context) },
  ],
})
