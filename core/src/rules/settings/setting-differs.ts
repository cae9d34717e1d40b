import { z } from 'zod'
import type { Change } from '../../course/index.ts'
import { isHeld } from '../../template/index.ts'
import { defineRule, aboutPart, type Verdict } from '../rule.ts'

const settings = ['attempts', 'minutes', 'handIn', 'where', 'shuffled', 'answersShown'] as const
const words: Readonly<Record<(typeof settings)[number], string>> = {
  attempts: 'attempts',
  minutes: 'time limit in minutes',
  handIn: 'what is handed in',
  where: 'where it is held',
  shuffled: 'an order of each student’s own',
  answersShown: 'when right answers are shown',
}

const valueWords = (value: unknown): string =>
  value === true ? 'yes' : value === false ? 'no' : String(value).replaceAll('-', ' ')

export const settingDiffers = defineRule({
  id: 'setting-differs',
  group: 'settings',
  title: 'Work is set as the template sets it',
  why: 'One class section may try three times, the next only once.',
  untold:
    'Settings for which the template asks nothing; work that takes nothing in at all has a rule of its own.',
  strength: 'should',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 1,
  messages: { differs: 'In “{item}”, {setting} is {seen} where {wanted} is set.' },
  *check(context): Generator<Verdict> {
    for (const part of context.parts) {
      if (part.kind === 'module') continue
      for (const setting of settings) {
        const wanted = part.definition.settings[setting]
        if (wanted === undefined) continue
        const told = { subject: aboutPart(part), discriminator: setting } as const
        const there = context.itemFor(part)
        const seen = there?.item.work?.[setting]
        if (!there) yield { ...told, outcome: 'absent' }
        else if (seen === wanted) yield { ...told, outcome: 'passed' }
        // Work that takes nothing in at all is told by a rule of its own.
        else if (setting === 'handIn' && (seen === undefined || seen === 'none'))
          yield { ...told, outcome: 'inapplicable' }
        else
          yield {
            ...told,
            outcome: 'failed',
            message: 'differs',
            values: {
              item: there.item.name,
              setting:
                setting === 'minutes' && isHeld(there.item)
                  ? 'its length in minutes'
                  : words[setting],
              seen: seen === undefined ? 'not set' : valueWords(seen),
              wanted: valueWords(wanted),
            },
            evidence: [{ kind: 'value', text: seen === undefined ? 'not set' : valueWords(seen) }],
            expected: valueWords(wanted),
            itemId: there.item.id,
            together: `${part.key}/${setting}`,
          }
      }
    }
  },
  mend(verdict, context): Change[] {
    const there = verdict.subject.about === 'part' ? context.itemFor(verdict.subject.part) : null
    const setting = settings.find((setting) => setting === verdict.discriminator)
    return there && setting
      ? [
          {
            change: 'set-item',
            id: there.item.id,
            fields: {
              work: { ...there.item.work, [setting]: there.part.definition.settings[setting] },
            },
          },
        ]
      : []
  },
})
