import type { CourseModule } from '../../course/index.ts'
import { isDaySpan, rangesNamed, type NamedRange } from '../../naming/index.ts'
import type { CheckContext } from '../context.ts'
import { aboutFound, type Subject } from '../rule.ts'

/** A module whose name says which days it covers. */
export interface RangedModule {
  module: CourseModule
  range: NamedRange
  subject: Subject
}

/** The modules of a list whose names give a range of days, in the order of the list. */
export const rangedModules = (context: CheckContext, modules: readonly CourseModule[]): RangedModule[] =>
  modules.flatMap((module): RangedModule[] => {
    const part = context.partOf(module.id)
    const wanted = part?.values.dates
    const range = rangesNamed(module.name, context.openingDay, isDaySpan(wanted) ? wanted : undefined)[0]
    return range ? [{ module, range, subject: aboutFound(context, module) }] : []
  })
