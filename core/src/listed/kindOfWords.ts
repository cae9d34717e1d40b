import type { ItemKind } from '../template/index.ts'

/** Words by which people call what they list; common practice, no source. */
const words: readonly (readonly [ItemKind, RegExp])[] = [
  [
    'assessment',
    /\b(?:quiz(?:zes)?|tests?|exams?|examinations?|mid-?terms?|finals?|assessments?|self-?checks?|knowledge checks?)\b/iu,
  ],
  [
    'discussion',
    /\b(?:discussions?|forums?|debates?|introduce yourself|introductions? of (?:us|yourself)|q ?& ?a)\b/iu,
  ],
  [
    'assignment',
    /\b(?:assignments?|essays?|papers?|projects?|reports?|homework|exercises?|portfolios?|journals?|logs?|log ?books?|presentations?|worksheets?|problem sets?|reflections?|drafts?|proposals?|submissions?|case stud(?:y|ies))\b/iu,
  ],
  [
    'event',
    /\b(?:labs?|laborator(?:y|ies)|sittings?|field ?(?:trips?|days?)|excursions?|visits?|webinars?|live sessions?|drop-ins?)\b/iu,
  ],
  ['file', /(?:\.(?:pdf|docx?|odt|pptx?|odp|xlsx?|ods|zip)$)|\b(?:handouts?|slides?)\b/iu],
]
/** What is said after these says what it is about, not what it is. */
const about = /\s(?:on|of|about|for|to|with|before|after|in)\s|\s[–—-]\s|:\s/iu

const firstIn = (text: string): ItemKind | null => {
  let found: { kind: ItemKind; at: number } | null = null
  for (const [kind, pattern] of words) {
    // The last such word is the noun: a quiz report is a report.
    const at = [...text.matchAll(new RegExp(pattern, 'giu'))].at(-1)?.index ?? -1
    if (at >= 0 && (found === null || at > found.at)) found = { kind, at }
  }
  return found?.kind ?? null
}

/** What kind of part somebody means by what they call it: a page, where no word tells. */
export const kindOfWords = (name: string): ItemKind => {
  if (/^https?:\/\/\S+$/iu.test(name)) return 'web-link'
  const head = name.split(about)[0] ?? ''
  return firstIn(head) ?? firstIn(name) ?? 'page'
}
