import { z } from 'zod'
import { aboutFound, defineRule, type Verdict } from '../rule.ts'

const strayMarks = /\*{2,}|#{2,}|\?{2,}|!{2,}|={2,}|<{2,}|>{2,}|~{2,}|[★☆✔✓✗✘❗❓⚠]/u

export const markerLeftOver = defineRule({
  id: 'marker-left-over',
  group: 'names',
  title: 'No notes to self stand in names',
  why: 'Students read “OLD”, “TODO” or a row of stars as something meant for them, and wonder what.',
  untold:
    'A name that is all in capitals, what the format itself writes, and notes in small letters: they may be words.',
  strength: 'should',
  parameters: z.strictObject({
    words: z
      .array(z.string().min(2).max(60))
      .max(100)
      .default([
        'TODO',
        'FIXME',
        'XXX',
        'TBD',
        'DRAFT',
        'OLD',
        'DO NOT USE',
        'DELETE',
        'HIDE',
        'CHECK',
        'TEST',
        'NEW',
        'WIP',
      ])
      .describe('Notes to self, where they are written in capitals'),
  }),
  mender: 'instructor',
  effortMinutes: 1,
  // Never mended by itself: a mark may mean something.
  messages: { marker: '“{name}” carries {seen}; if it is a note to yourself, take it out.' },
  *check(context, { words }): Generator<Verdict> {
    const note = new RegExp(
      `(?<![\\p{L}\\p{N}])(?:${words.map((word) => word.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')).join('|')})(?![\\p{L}\\p{N}])`,
      'u',
    )
    const named = [
      ...context.modules.map((module) => ({ id: module.id, name: module.name })),
      ...context.placedItems.map(({ item }) => ({ id: item.id, name: item.name })),
    ]
    for (const { id, name } of named) {
      const part = context.partOf(id)
      const subject = aboutFound(context, { id, name })
      // A name written all in capitals shouts, but makes no notes; what the format itself writes is meant.
      const shouted = name === name.toUpperCase()
      const seen =
        strayMarks.exec(name)?.[0] ??
        (shouted || (part && note.test(part.name)) ? undefined : note.exec(name)?.[0])
      if (seen === undefined || (part && part.name.includes(seen))) {
        if (part) yield { subject, outcome: 'passed' }
      } else
        yield {
          subject,
          outcome: 'failed',
          message: 'marker',
          values: { name, seen: `“${seen}”` },
          evidence: [{ kind: 'words', text: seen }],
          expected: 'the name without it',
          itemId: id,
        }
    }
  },
})
