import { freshKey, homePageKey } from '../template/index.ts'
import type { ModelReading } from './readModel.ts'

/** Something the model course suggests, to be accepted or refused. */
export interface ModelProposal {
  /** Stable for the same reading: `repeat`, `format:KEY`, `text:KEY/BLOCK`, `different:KEY`, `part:KEY`. */
  id: string
  about: 'repeat' | 'part' | 'format' | 'fixed-text' | 'fill-in' | 'different'
  /** Key of the part it would become. */
  part: string
  words: string
  /** What of the course bears it out, in words. */
  evidence: string
  /** Share of what was seen that bears it out, 0 to 1; below one half it is offered refused. */
  support: number
}

/** A template while it is made from a reading: what is proposed so far, and the keys that are taken. */
export interface Proposing {
  reading: ModelReading
  proposals: ModelProposal[]
  /** A key that no part has yet. @param ids of what stands for the part in the model course */
  keyFor: (name: string, ids?: readonly string[]) => string
  /** Key of the part that something of the model course stands for, by its id. */
  keyOf: ReadonlyMap<string, string>
  /** Notes a proposal. @returns whether it is accepted */
  propose: (proposal: ModelProposal) => boolean
  isRefused: (id: string) => boolean
}

/** @param refused ids of proposals that were refused */
export const startProposing = (reading: ModelReading, refused: ReadonlySet<string>): Proposing => {
  const proposals: ModelProposal[] = []
  const fresh = keysApart([homePageKey])
  const keyOf = new Map<string, string>()
  return {
    reading,
    proposals,
    keyFor: (name, ids = []) => {
      const key = fresh(name)
      for (const id of ids) keyOf.set(id, key)
      return key
    },
    keyOf,
    propose: (proposal) => {
      proposals.push(proposal)
      return !refused.has(proposal.id)
    },
    isRefused: (id) => refused.has(id),
  }
}

/** Gives keys that differ from one another and from those that are taken. */
export const keysApart = (taken: readonly string[] = []): ((name: string) => string) => {
  const keys = new Set(taken)
  return (name) => {
    const key = freshKey(name, keys)
    keys.add(key)
    return key
  }
}

export const short = (text: string, most = 90): string =>
  text.length > most ? `${text.slice(0, most - 1)}…` : text
export const percent = (share: number): string => `${Math.round(share * 100)} in a hundred`

/** How well names follow a format, with those that do not, in words. */
export const followWords = (share: number, leftOut: readonly string[], allFollow: string): string =>
  leftOut.length === 0
    ? allFollow
    : `${percent(share)} follow; not “${leftOut
        .slice(0, 3)
        .map((name) => short(name, 40))
        .join('”, “')}”`
