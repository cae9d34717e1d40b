import type { CheckContext, CoursePage } from './context.ts'
import type { SeenEvidence, Verdict } from './rule.ts'

const mostEvidence = 20

/** What a rule about pages says. */
export interface PageFaults {
  /** Whether the page has anything the rule speaks of. */
  applies: (page: CoursePage) => boolean
  /** The words, addresses or values that are wrong, in the order of the page. */
  faults: (page: CoursePage) => readonly string[]
  message: string
  expected: string
  evidence?: SeenEvidence['kind']
}

/**
 * One requirement for every page that students are to read: passed without a fault, not due yet while nobody can reach
 * it before it is needed. Pages of one part are told together, and so are pages that no part expects.
 */
export function* pageFaults(context: CheckContext, wanted: PageFaults): Generator<Verdict> {
  const { applies, faults, message, expected, evidence = 'words' } = wanted
  for (const { placed, subject, why } of context.unreadPages())
    yield {
      subject,
      outcome: 'cannot-tell',
      reason: `“${placed.item.name}” could not be read: ${why}.`,
      itemId: placed.item.id,
    }
  for (const page of context.pages()) {
    const { placed, part, subject } = page
    if (part?.audience === 'staff' || !applies(page)) {
      if (part) yield { subject, outcome: 'inapplicable' }
      continue
    }
    const seen = faults(page)
    if (seen.length === 0) {
      yield { subject, outcome: 'passed' }
      continue
    }
    const need = part ? context.needOf(part) : context.openingDay
    if (!context.studentsReach(placed) && !context.reached(need))
      yield { subject, outcome: 'not-due-yet', dueOn: need }
    else
      yield {
        subject,
        outcome: 'failed',
        message,
        expected,
        values: {
          item: placed.item.name,
          seen: (seen[0] ?? '').slice(0, 160),
          count: String(seen.length),
          also: seen.length > 1 ? ` and ${seen.length - 1} more` : '',
        },
        evidence: seen
          .slice(0, mostEvidence)
          .map((text) => ({ kind: evidence, text: text.slice(0, 300) })),
        itemId: placed.item.id,
        together: part ? part.key : 'own-pages',
      }
  }
}
