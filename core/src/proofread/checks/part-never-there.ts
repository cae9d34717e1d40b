import { anchorWords, isModule, partsWithin } from '../../template/index.ts'
import { variantWords } from '../../variant/index.ts'
import { defineCheck, Proof, type Found } from '../remark.ts'

export const partNeverThere = defineCheck({
  id: 'part-never-there',
  severity: 'error',
  title: 'Every part can exist',
  messages: {
    never:
      '“{part}” is in no course this template applies to: its condition or repeat leaves none.',
    short: '“{part}” is not in courses that are {variant}, as its repeat does not reach them.',
    exception: 'The exception for {which} of “{part}” holds in no course this template applies to.',
  },
  *find(proof): Generator<Found> {
    const courses = proof.variants.map((variant) => ({
      words: variantWords(
        variant.variant,
        proof.variants.map((other) => other.variant),
      ),
      parts: Proof.byKey(variant),
    }))
    if (courses.length === 0) return
    // Whether there is a pause is the term’s affair.
    const inPause = new Set(
      proof.parts
        .filter(isModule)
        .flatMap((module) =>
          module.exceptions.flatMap((exception) =>
            exception.anchor.at === 'pause'
              ? partsWithin(exception.add).map((part) => part.key)
              : [],
          ),
        ),
    )
    for (const part of proof.parts) {
      if (inPause.has(part.key)) continue
      const without = courses.filter((course) => !course.parts.has(part.key))
      if (without.length === courses.length)
        yield { part: part.key, message: 'never', values: { part: part.name } }
      else if (without.length > 0 && part.when === undefined && part.repeat)
        yield {
          part: part.key,
          message: 'short',
          values: { part: part.name, variant: without[0]?.words ?? '' },
          severity: 'warning',
        }
      if (!isModule(part)) continue
      for (const exception of part.exceptions) {
        const holds =
          exception.anchor.at === 'pause' ||
          exception.omit ||
          exception.leaveOut.length > 0 ||
          courses.some(({ parts }) =>
            [...parts.values()].some((list) =>
              list.some((place) => place.exception === exception.key),
            ),
          )
        if (!holds)
          yield {
            part: part.key,
            block: exception.key,
            message: 'exception',
            values: { which: anchorWords(exception.anchor), part: part.name },
            severity: 'warning',
          }
      }
    }
  },
})
