/** What of an earlier course may come along into a new one. */
export const carryKinds = [
  'contact-cards',
  'answers',
  'topics',
  'own-pages',
  'own-activities',
  'announcements',
] as const
export type CarryKind = (typeof carryKinds)[number]
