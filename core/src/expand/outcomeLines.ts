import {
  outcomeCoverage,
  type OutcomeLine,
  type PartLink,
  type Template,
} from '../template/index.ts'
import { everyExpected, type ExpectedPart } from './expected.ts'

const linkTo = ({ instance, name }: ExpectedPart): PartLink => ({ href: `ref:${instance}`, name })

/**
 * For each course outcome the outermost modules that students see in which something serves or assesses it, in the order of
 * the course.
 */
export const outcomeLines = (template: Template, parts: readonly ExpectedPart[]): OutcomeLine[] =>
  outcomeCoverage(template).map(({ outcome, objectives, assessedBy }) => {
    const keys = new Set([
      ...objectives.map(({ part }) => part),
      ...assessedBy.map(({ key }) => key),
    ])
    const modules: OutcomeLine['modules'] = []
    let before: ExpectedPart | null = null
    for (const part of parts) {
      if (part.parent !== null) continue
      const works =
        part.kind === 'module' &&
        part.audience === 'students' &&
        !part.inBreak &&
        (keys.has(part.key) || everyExpected(part.items).some(({ key }) => keys.has(key)))
      // A pause between two repetitions parts nothing.
      if (!works && part.inBreak) continue
      const stretch = modules.at(-1)
      if (works && stretch && before?.key === part.key) stretch.last = linkTo(part)
      else if (works) modules.push({ first: linkTo(part), last: null })
      before = works ? part : null
    }
    return { text: outcome.text, modules }
  })
