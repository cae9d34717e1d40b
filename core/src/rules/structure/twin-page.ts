import { z } from 'zod'
import type { CheckContext } from '../context.ts'
import { aboutPart, defineRule, orPassed, type Verdict } from '../rule.ts'
import { twinsIn } from './twins.ts'

export const twinPage = defineRule({
  id: 'twin-page',
  group: 'structure',
  title: 'No repetition was taken for another',
  why: 'Two overviews of week 3 and none of week 4: the wrong copy was edited, and week 4 reads week 3’s text.',
  untold:
    'Two pages that merely say the same, and pages that say the same in three weeks or more: a question may be asked twice. What is named as a copy beside its original is left over, and told as such.',
  strength: 'must',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 10,
  messages: {
    text: '“{copy}” in {module} reads word for word as “{original}” does: it seems that a copy stands where “{missing}” should.',
    twin: 'There are two copies of “{original}”, one of them “{copy}”, and “{missing}” is missing: it seems that the wrong copy was edited.',
  },
  check: (context) => orPassed(tell(context)),
})

function* tell(context: CheckContext): Generator<Verdict> {
  for (const { part, original, found, by } of twinsIn(context))
    yield {
      subject: aboutPart(part),
      outcome: 'failed',
      message: by === 'copy' ? 'twin' : 'text',
      values: {
        original: original.item.name,
        copy: found.item.name,
        missing: part.name,
        module: found.module ? `“${found.module.name}”` : 'no module',
      },
      evidence: [{ kind: 'words', text: found.item.name }],
      expected: part.name,
      itemId: found.item.id,
    }
}
