import { z } from 'zod'
import { withoutEnd } from '../../document/index.ts'
import { askedOf, oncePerPage, wholeText } from '../../page/index.ts'
import { aboutCourse, defineRule, type Verdict } from '../rule.ts'

/** A fact that stands after its label, in one line or the next. */
const facts: readonly { key: string; label: RegExp }[] = [
  { key: 'office hours', label: /^(?:my )?office hours\b[\s:–—-]*/i },
  { key: 'telephone', label: /^(?:tele)?phone(?: number)?\b[\s:–—-]*/i },
  { key: 'room', label: /^(?:class ?room|room)\b\s*[:–—-]\s*/i },
]
/** How each of them begins. */
const maybeFact = /^(?:my )?(?:office hours|(?:tele)?phone|(?:class ?)?room)/im
const mail = /[\w.+-]{1,64}@[\w-]{1,63}(?:\.[\w-]{2,63}){1,4}/g

export const sameFactDiffers = defineRule({
  id: 'same-fact-differs',
  group: 'page content',
  title: 'The same fact is told the same way everywhere',
  why: 'With two office hours in one course, half of the students stand before a shut door.',
  untold:
    'Facts other than office hours, telephone, room and the addresses of instructors, and facts that stand without their label.',
  strength: 'should',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 3,
  messages: { differs: 'The course tells {fact} in {count} ways: {seen}.' },
  *check(context): Generator<Verdict> {
    const told = new Map<string, Map<string, string>>()
    const tell = (fact: string, value: string, where: string) => {
      const text = withoutEnd(value, ' .;,').trim()
      if (text === '' || text.length > 120) return
      const known = told.get(fact) ?? new Map<string, string>()
      if (![...known.keys()].some((word) => word.toLowerCase() === text.toLowerCase()))
        known.set(text, where)
      told.set(fact, known)
    }
    const { instructors, assistants } = context.expected.facts
    for (const { page, placed, part } of context.pages()) {
      if (part?.audience === 'staff') continue
      const { labelled, addresses } = toldIn(page)
      const prompts =
        labelled.length === 0
          ? null
          : new Set(part?.blocks.flatMap((block) => askedOf(block)?.prompts ?? []))
      for (const { key, value } of labelled)
        if (!prompts?.has(value)) tell(key, value, placed.item.name)
      for (const address of addresses)
        for (const { name, email } of [...instructors, ...assistants]) {
          const surname = name.split(/\s+/).at(-1)?.toLowerCase() ?? ''
          if (surname.length > 3 && address.split('@')[0]?.includes(surname)) {
            tell(`the address of ${name}`, email.toLowerCase(), 'the roster')
            tell(`the address of ${name}`, address, placed.item.name)
          }
        }
    }
    for (const [fact, values] of told) {
      const subject = { subject: aboutCourse, discriminator: fact } as const
      if (values.size < 2) yield { ...subject, outcome: 'passed' }
      else {
        const seen = [...values].map(([value, where]) => `“${value}” (${where})`)
        yield {
          ...subject,
          outcome: 'failed',
          message: 'differs',
          values: { fact, count: String(values.size), seen: seen.join(', ') },
          evidence: seen.map((text) => ({ kind: 'words', text }) as const),
          expected: 'one of them',
          together: fact,
        }
      }
    }
  },
})

/** The facts a page tells after their labels, and the e-mail addresses in it. */
const toldIn = oncePerPage((page) => {
  const whole = wholeText(page)
  const labelled = !maybeFact.test(whole)
    ? []
    : page.paragraphs.flatMap(({ text }, i) =>
        facts.flatMap(({ key, label }) => {
          const match = label.exec(text)
          const value = match
            ? text.slice(match[0].length) || (page.paragraphs[i + 1]?.text ?? '')
            : ''
          return value === '' ? [] : [{ key, value }]
        }),
      )
  return {
    labelled,
    addresses: whole.includes('@')
      ? (whole.match(mail) ?? []).map((address) => address.toLowerCase())
      : [],
  }
})
