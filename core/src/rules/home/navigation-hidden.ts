import { z } from 'zod'
import type { Change } from '../../course/index.ts'
import { defineRule, type Verdict } from '../rule.ts'
import { mendedNavigation, pairedEntries } from './wantedNavigation.ts'

export const navigationHidden = defineRule({
  id: 'navigation-hidden',
  group: 'home page',
  title: 'What is hidden from the navigation stays hidden, the rest shows',
  why: 'Files in the navigation show students drafts and keys; grades out of it make them ask.',
  untold: 'Entries that the template does not name.',
  strength: 'should',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 1,
  messages: {
    shown: 'The navigation shows “{label}”, which is to be hidden.',
    hidden: 'The navigation hides “{label}”, which is to show.',
  },
  *check(context): Generator<Verdict> {
    for (const { wanted, found, told } of pairedEntries(context)) {
      if (!found) yield { ...told, outcome: 'inapplicable' }
      else if (found.hidden === wanted.hidden) yield { ...told, outcome: 'passed' }
      else
        yield {
          ...told,
          outcome: 'failed',
          message: wanted.hidden ? 'shown' : 'hidden',
          values: { label: wanted.label },
          evidence: [
            { kind: 'value', text: `${wanted.label}: ${found.hidden ? 'hidden' : 'shown'}` },
          ],
          expected: wanted.hidden ? 'hidden' : 'shown',
          together: 'navigation',
        }
    }
  },
  mend: (_, context): Change[] => [
    { change: 'set-navigation', navigation: mendedNavigation(context) },
  ],
})
