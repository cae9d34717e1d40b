import type { FindingSpell } from '@wickerframe/core'

export interface FindingSpells {
  fingerprint: string
  message: string
  /** The earliest first; more than one: it came back. */
  spells: FindingSpell[]
}

/** The spells of each finding together: those that are still found first, then those that went last. */
export const spellsByFinding = (spells: readonly FindingSpell[]): FindingSpells[] => {
  const findings = new Map<string, FindingSpells>()
  for (const spell of spells) {
    const known = findings.get(spell.fingerprint)
    if (known) known.spells.push(spell)
    else
      findings.set(spell.fingerprint, {
        fingerprint: spell.fingerprint,
        message: spell.message,
        spells: [spell],
      })
  }
  return [...findings.values()].map((finding) => ({
    ...finding,
    spells: finding.spells.toSorted((a, b) => (a.came < b.came ? -1 : a.came > b.came ? 1 : 0)),
  }))
}
