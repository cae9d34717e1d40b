import { z } from 'zod'
import { countWords } from '../../page/index.ts'
import { aboutPart, defineRule, type Verdict } from '../rule.ts'

export const fillInUnfilled = defineRule({
  id: 'fill-in-unfilled',
  group: 'page content',
  title: 'What the instructor is to fill in is filled in',
  why: 'Students read “[your office hours]” and know that nobody looked at the course.',
  strength: 'must',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 3,
  messages: {
    unfilled: '“{item}” still asks: “{prompt}”.',
    empty: '“{item}” has nothing where it asks: “{prompt}”.',
    beside: '“{item}” has an answer, and the prompt “{prompt}” still stands beside it.',
    short: '“{item}” answers “{prompt}” in {count} words; at least {least} are wanted.',
  },
  *check(context): Generator<Verdict> {
    for (const part of context.pageParts()) {
      const there = context.itemFor(part)
      const readings = there ? context.readingsOf(there) : null
      for (const block of part.blocks) {
        if (block.definition.kind !== 'fill-in') continue
        const { prompt, minWords } = block.definition
        const told = { subject: aboutPart(part), discriminator: block.key, strength: block.strength } as const
        const reading = readings?.find((one) => one.block === block)
        if (!there || !reading) {
          yield { ...told, outcome: 'absent' }
          continue
        }
        const words = countWords(reading.text)
        const message =
          reading.state === 'unfilled' ? (reading.text === '' ? 'empty' : 'unfilled')
          : reading.state === 'prompt-beside-answer' ? 'beside'
          : reading.state === 'filled' && minWords !== undefined && words < minWords ? 'short'
          : null
        if (reading.state === 'missing' || (block.strength === 'may' && message !== 'beside')) yield { ...told, outcome: 'inapplicable' }
        else if (message === null) yield { ...told, outcome: 'passed' }
        else if (!context.reached(context.needOf(part))) yield { ...told, outcome: 'not-due-yet', dueOn: context.needOf(part) }
        else
          yield {
            ...told,
            outcome: 'failed',
            message,
            values: { item: there.item.name, prompt, count: String(words), least: String(minWords ?? 0) },
            evidence: [{ kind: 'words', text: reading.text === '' ? 'nothing' : reading.text.slice(0, 300) }],
            expected: block.definition.label ?? prompt,
            itemId: there.item.id,
            together: `${part.key}/${block.key}`,
          }
      }
    }
  },
  examples: {
    passes: [
      { title: 'everything is filled in', change: () => {} },
      { title: 'a later week may still wait', change: ({ item }) => void (item('week-overview', 4).html = (item('week-overview', 4).html ?? '').replace(/We learn[^<]*/, 'In two or three sentences, say what this week is about.')) },
      { title: 'a filled answer on a page whose markers were stripped', change: ({ item }) => void (item('home-page').html = (item('home-page').html ?? '').replace(/ data-wf-[a-z]+="[^"]*"/g, '')) },
    ],
    fails: [
      { title: 'the prompt still stands', change: ({ item }) => void (item('week-overview', 3).html = (item('week-overview', 3).html ?? '').replace(/We learn[^<]*/, 'In two or three sentences, say what this week is about.')), evidence: 'In two or three sentences, say what this week is about.' },
      { title: 'the prompt stands beside the answer', change: ({ item }) => void (item('home-page').html = (item('home-page').html ?? '').replace('Tuesdays 10 to 11, room 4', 'When can students see you? Tuesdays 10 to 11, room 4')), evidence: 'When can students see you? Tuesdays 10 to 11, room 4' },
      { title: 'one word where twenty are wanted', change: ({ item }) => void (item('welcome').html = (item('welcome').html ?? '').replace(/I have sailed[^<]*/, 'Hello.')), evidence: 'Hello.' },
    ],
  },
})
