import type { CheckResult } from '@wickerframe/core'
import type { CourseDetail } from '@wickerframe/contract'
import { plural } from '../../controls/controls.tsx'
import { stateWords } from '../courses/CoursesScreen.tsx'

/** Open requirements that somebody has to see to. */
export const openFindings = (result: CheckResult | null): number =>
  result?.findings.filter(
    ({ strength, places }) => strength !== 'may' && places.some((place) => !place.waived),
  ).length ?? 0

const readinessWords = ({ readiness, counts }: CheckResult): string =>
  ({
    ready: 'ready',
    'ready-as-far-as-seen': 'ready as far as seen',
    'not-ready': `${plural(counts.openMusts, 'open must')}, ${plural(counts.openShoulds, 'open should')}`,
  })[readiness]

/** How a course stands, in one line. */
export const standingWords = (result: CheckResult | null): string => {
  if (!result) return 'not checked as of this date'
  const { counts } = result
  return [
    `${counts.met} of ${counts.requirements} requirements met`,
    readinessWords(result),
    ...(counts.waived > 0 ? [`${counts.waived} waived`] : []),
    ...(counts.cannotTell > 0 ? [`${counts.cannotTell} unseen`] : []),
  ].join(' · ')
}

/** Who teaches it, in which class sections, how, how long, and by which template. */
export const aboutCourse = (course: CourseDetail): string => {
  const { classSections, instructors, modality, state, template, weeks } = course
  return [
    instructors.map(({ name }) => name).join(', ') || 'no instructor',
    `class ${classSections.length === 1 ? 'section' : 'sections'} ${classSections.join(', ')}`,
    modality,
    `${weeks} weeks`,
    template
      ? `${template.title}, version ${template.version}${template.newest > template.version ? ` (newest is ${template.newest})` : ''}`
      : stateWords[state],
  ].join(' · ')
}
