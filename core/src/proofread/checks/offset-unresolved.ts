import { everyExpected } from '../../expand/index.ts'
import { variantWords } from '../../variant/index.ts'
import { defineCheck, type Found } from '../remark.ts'

export const offsetUnresolved = defineCheck({
  id: 'offset-unresolved',
  severity: 'error',
  title: 'Dates told relative to a week stand in one',
  messages: {
    outside:
      '“{part}” has a date told by its own week, but stands in no week of courses that are {variant}.',
  },
  *find(proof): Generator<Found> {
    const told = new Set<string>()
    for (const { variant, expected } of proof.variants)
      for (const part of everyExpected(expected.parts)) {
        const { settings } = part.definition
        const own = (['opens', 'due', 'closes'] as const).some(
          (field) =>
            settings[field] !== undefined &&
            settings[field].week === undefined &&
            settings[field].from.startsWith('week') &&
            part[`${field}At`] === null,
        )
        if (!own || told.has(part.key)) continue
        told.add(part.key)
        yield {
          part: part.key,
          message: 'outside',
          values: {
            part: part.definition.name,
            variant: variantWords(
              variant,
              proof.variants.map((variant) => variant.variant),
            ),
          },
        }
      }
  },
})
