import { useState } from 'react'
import type { Finding } from '@wickerframe/core'
import { openPlaces } from './followed.ts'

/** Findings that something is to be done with at once. A finding is chosen when each of its open places is. */
export const useChosen = () => {
  const [places, setPlaces] = useState<ReadonlySet<string>>(new Set())
  const has = (finding: Finding): boolean =>
    openPlaces(finding).every(({ fingerprint }) => places.has(fingerprint))
  return {
    has,
    /** Chooses all of these; lets them go, where all were chosen already. */
    toggle: (findings: readonly Finding[]): void => {
      const letting = findings.every(has)
      const next = new Set(places)
      for (const { fingerprint } of findings.flatMap(openPlaces))
        if (letting) next.delete(fingerprint)
        else next.add(fingerprint)
      setPlaces(next)
    },
    letGo: (): void => setPlaces(new Set()),
  }
}
export type Chosen = ReturnType<typeof useChosen>
