import { failure, success, type Result } from '../document/index.ts'
import { shownOf, withFilesLedTo } from '../files/index.ts'
import { escapeHtml } from '../template/index.ts'
import { changeKind, type Change } from './change/change.ts'
import { ChangeSite, type ChangeRefusal, type PlatformHand } from './change/site.ts'
import type { Course } from './course.ts'

/** Why a change of a set could not be made; none of the set is then. */
export interface ChangeProblem extends ChangeRefusal {
  /** Index of the change in its set. */
  at: number
}

/** HTML with its links written as addresses, as the platform writes it; the links that lead to nothing are noted. */
const resolved = (html: string, site: ChangeSite, unknown: string[]): string => {
  const noted = unknown.length
  const linked = html.replace(
    /(href|src)="(ref|item):([^"]+)"/g,
    (whole, attribute: string, scheme: string, id: string) => {
      const target = scheme === 'ref' ? site.ids[id] : site.has(id) ? id : undefined
      if (target === undefined) unknown.push(`${scheme}:${id}`)
      return target === undefined ? whole : `${attribute}="${site.hand.urlOf(target)}"`
    },
  )
  if (unknown.length > noted) return linked
  const { urlOfFile, rewriteHtml } = site.hand
  return rewriteHtml(
    urlOfFile ? withFilesLedTo(linked, (file) => escapeHtml(urlOfFile(shownOf(file)))) : linked,
  )
}

/**
 * Carries out an ordered change set: all of it, or nothing.
 * @returns the course after it, and the id the platform gave to each client id; the input is left as it was
 */
export const applyChanges = (
  course: Course,
  changes: readonly Change[],
  hand: PlatformHand,
): Result<{ course: Course; ids: Record<string, string> }, ChangeProblem> => {
  const site = new ChangeSite(structuredClone(course), hand)
  for (const [at, change] of changes.entries()) {
    const refusal = changeKind(change).apply(change, site)
    if (refusal) return failure({ ...refusal, at })
  }
  // Links are resolved when everything is there, so that a page may lead to what is made after it.
  const refusal = (of: string, unknown: readonly string[]) =>
    failure({
      code: 'unknown-reference' as const,
      at: changes.length - 1,
      message: `“${of}” links to ${unknown.join(', ')}, which is not there`,
    })
  for (const item of site.writtenPages) {
    const unknown: string[] = []
    item.html = resolved(item.html ?? '', site, unknown)
    if (unknown.length > 0) return refusal(item.name, unknown)
  }
  for (const { question, of } of site.writtenQuestions) {
    const unknown: string[] = []
    question.body.text = resolved(question.body.text, site, unknown)
    if (unknown.length > 0) return refusal(of, unknown)
  }
  return success({ course: site.course, ids: site.ids })
}
