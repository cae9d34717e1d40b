import { rememberOf } from '../remember/index.ts'
import { partsWithin, type Template } from '../template/index.ts'

/** The departments that conditions of a template tell apart; between all others it makes no difference. Asked for each course. */
export const departmentsTold = rememberOf(
  (template: Template): ReadonlySet<string> =>
    new Set(partsWithin(template.parts).flatMap(({ when }) => when?.departments ?? [])),
)
