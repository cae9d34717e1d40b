import type { Problem } from '../document/index.ts'
import { partsWithin, type Exception, type Module, type Part } from '../template/index.ts'
import { keptFields, rank, same, weakened } from './kept.ts'

type PartWeakenings = (
  upper: readonly Part[],
  here: readonly Part[],
  path: PropertyKey[],
) => Problem[]

/** What an exception of a layer's own takes away from parts above, or says otherwise of them; raising a strength is neither. */
const takesAway = (exception: Exception, module: Module): boolean => {
  const above = new Map(partsWithin(module.items).map((part) => [part.key, part]))
  return (
    exception.omit ||
    exception.name !== undefined ||
    (exception.strength !== undefined && rank(exception.strength) > rank(module.strength)) ||
    exception.leaveOut === 'all' ||
    exception.leaveOut.some((key) => above.has(key)) ||
    exception.set.some(({ part, name, strength, settings }) => {
      const upper = above.get(part)
      if (!upper) return false
      return (
        name !== undefined ||
        (strength !== undefined && rank(strength) > rank(upper.strength)) ||
        (settings !== undefined &&
          ((settings.published === false && upper.audience === 'students') ||
            keptFields(
              upper.settings,
              { ...upper.settings, ...settings },
              Object.keys(upper.settings),
              [],
            ).length > 0))
      )
    })
  )
}

/** Where a layer weakens exceptions above it, or makes exceptions that weaken what stands above. */
export const exceptionWeakenings = (
  upper: Module,
  own: Module,
  path: PropertyKey[],
  partWeakenings: PartWeakenings,
): Problem[] => [
  ...upper.exceptions.flatMap((exception): Problem[] => {
    const at = own.exceptions.findIndex(({ key }) => key === exception.key)
    const present = own.exceptions[at]
    if (!present || !same({ ...present, add: [] }, { ...exception, add: [] }))
      return [
        weakened(
          [...path, 'exceptions'],
          present ?? 'nothing',
          `the exception ${exception.key} as the layer above has it`,
        ),
      ]
    return partWeakenings(exception.add, present.add, [...path, 'exceptions', at, 'add'])
  }),
  ...own.exceptions.flatMap((exception, i): Problem[] =>
    upper.exceptions.some(({ key }) => key === exception.key) || !takesAway(exception, upper)
      ? []
      : [
          weakened(
            [...path, 'exceptions', i],
            exception.key,
            'an exception that only adds or raises; what stands above is not left out or changed',
          ),
        ],
  ),
]
