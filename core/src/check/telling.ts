import { grouped } from '../grouped/index.ts'
import type { CheckContext, PairedItem, Subject } from '../rules/index.ts'
import { isWeaker } from '../template/index.ts'
import { subjectKey, type OpenRequirement } from './openRequirement.ts'
import type { Outcome } from './outcome.ts'
import { silence } from './silence.ts'
import { isPageUntold } from './untoldPage.ts'

/** What cannot be met because its part is missing is not met, told by the missing part; if the part may be missing, it does not apply. */
export const resolveAbsent = (told: OpenRequirement[], context: CheckContext): void => {
  const tellers = new Map<string, Outcome>()
  const missing = new Set([
    'module-missing',
    'item-missing',
    'home-page-set',
    'home-element-missing',
  ])
  for (const { rule, said, subject, discriminator, outcome } of told)
    if (said === 'failed' && missing.has(rule.id))
      tellers.set(
        rule.id === 'home-element-missing'
          ? `${subjectKey(subject)}/${discriminator}`
          : rule.id === 'home-page-set'
            ? context.expected.home.instance
            : subjectKey(subject),
        outcome,
      )
  for (const { said, subject, discriminator, outcome } of told) {
    if (said !== 'absent') continue
    const part = subject.about === 'part' ? subject.part : null
    let teller = part
      ? (tellers.get(`${part.instance}/${discriminator}`) ?? tellers.get(part.instance))
      : undefined
    for (
      let at = context.partAt(part?.parent ?? null);
      at && !teller;
      at = context.partAt(at.parent)
    )
      teller = tellers.get(at.instance)
    const there = part ? context.itemFor(part) : null
    const notRead = there ? whyNotRead(there, context) : null
    if (notRead !== null && there) {
      outcome.outcome = 'cannot-tell'
      outcome.reason = `“${there.item.name}” could not be read: ${notRead}.`
      continue
    }
    outcome.outcome = teller ? 'failed' : 'inapplicable'
    outcome.toldBy = teller?.fingerprint ?? null
  }
}

/** Why nothing can be said of the text of an item that stands for a part, or null. */
const whyNotRead = ({ part, item }: PairedItem, { pageOf }: CheckContext): string | null =>
  isPageUntold(part, item)
    ? 'the platform does not tell what it says'
    : (pageOf(item)?.notRead ?? null)

/** What a teller may speak of, so that it silences what is said of a subject. */
const keysInScope = (
  scope: (typeof silence)[number]['scope'],
  subject: Subject,
  context: CheckContext,
): string[] => {
  if (scope === 'same') return [subjectKey(subject)]
  if (scope === 'course') return ['course']
  if (subject.about !== 'part') return []
  const standsIn = context.itemFor(subject.part)?.module
  return [subject.part.parent, standsIn && context.partOf(standsIn.id)?.instance].flatMap(
    (key) => key ?? [],
  )
}

/** What another finding tells already is not told again, unless it asks for more than that one does: a course is not ready by being silent. */
export const applySilence = (told: OpenRequirement[], context: CheckContext): void => {
  const open = grouped(
    told.filter(({ said }) => said === 'failed'),
    ({ rule, subject }) => `${rule.id}|${subjectKey(subject)}`,
  )
  for (const { rule, said, subject, outcome } of told) {
    if (said !== 'failed') continue
    for (const entry of silence) {
      if (entry.silent !== rule.id) continue
      const teller = keysInScope(entry.scope, subject, context)
        .flatMap((key) => open.get(`${entry.teller}|${key}`) ?? [])
        .find(
          ({ verdict, outcome: { strength } }) =>
            verdict.outcome === 'failed' &&
            verdict.message !== entry.unless &&
            !isWeaker(strength, outcome.strength),
        )
      if (teller) outcome.toldBy = teller.outcome.fingerprint
    }
  }
}
