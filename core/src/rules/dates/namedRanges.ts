import type { CourseModule } from '../../course/index.ts'
import type { NamedRange } from '../../naming/index.ts'
import type { CheckContext } from '../context.ts'
import { aboutFound } from '../rule.ts'
import type { Subject } from '../subject.ts'

/** A module whose name says which days it covers. */
export interface RangedModule {
  module: CourseModule
  range: NamedRange
  subject: Subject
}

/** The modules of a list whose names give a range of days, in the order of the list. */
export const rangedModules = (
  context: CheckContext,
  modules: readonly CourseModule[],
): RangedModule[] =>
  modules.flatMap((module): RangedModule[] => {
    const range = context.rangeNamed(module)
    return range ? [{ module, range, subject: aboutFound(context, module) }] : []
  })
