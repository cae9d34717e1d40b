import { z } from 'zod'
import { everyModule, type Change } from '../../course/index.ts'
import { targetWords } from '../../template/index.ts'
import type { CheckContext } from '../context.ts'
import { defineRule, type Verdict } from '../rule.ts'
import { mendedNavigation, pairedEntries, wantedTargets } from './wantedNavigation.ts'

/** An address leads to the same with a slash at its end and without. */
const sameTarget = (one: string, other: string): boolean =>
  one.replace(/\/$/, '') === other.replace(/\/$/, '')

/** What stands under an id in the course, in quotes; null for nothing. */
const nameOf = (context: CheckContext, id: string): string | null => {
  const name =
    context.placed(id)?.item.name ??
    everyModule(context.course.modules).find((module) => module.id === id)?.name
  return name === undefined ? null : `“${name}”`
}

export const navigationTarget = defineRule({
  id: 'navigation-target',
  group: 'home page',
  title: 'The navigation leads where it says',
  why: 'An entry “Help” that leads to last term’s page is worse than none.',
  untold:
    'Entries of which the template or the platform does not say where they lead, and those that lead to a part that is missing, which is told itself.',
  strength: 'should',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 1,
  messages: { elsewhere: 'In the navigation “{label}” leads to {seen}, not to {wanted}.' },
  *check(context): Generator<Verdict> {
    for (const { wanted, found, told } of pairedEntries(context)) {
      const targets = wantedTargets(context, wanted)
      const leads = found?.to
      if (!targets || targets.length === 0 || leads === undefined)
        yield { ...told, outcome: 'inapplicable' }
      else if (targets.some((target) => sameTarget(target, leads)))
        yield { ...told, outcome: 'passed' }
      else {
        const [seen = '', expected = ''] = [leads, targets[0] ?? ''].map((to) =>
          targetWords(to, (id) => nameOf(context, id)),
        )
        yield {
          ...told,
          outcome: 'failed',
          message: 'elsewhere',
          values: { label: wanted.label, seen, wanted: expected },
          evidence: [{ kind: 'value', text: `${wanted.label}: ${seen}` }],
          expected,
          together: 'navigation',
        }
      }
    }
  },
  mend: (_, context): Change[] => [
    { change: 'set-navigation', navigation: mendedNavigation(context) },
  ],
})
