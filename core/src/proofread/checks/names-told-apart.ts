import { ambiguityOf, foldedName, formatOf } from '../../naming/index.ts'
import { everyExpected } from '../../expand/index.ts'
import { variantWords } from '../../variant/index.ts'
import { defineCheck, type Found } from '../remark.ts'

export const namesToldApart = defineCheck({
  id: 'names-told-apart',
  severity: 'error',
  title: 'Naming formats can be read back and do not clash',
  messages: {
    ambiguous: '“{format}”: {why}.',
    clash:
      '“{format}” and “{other}” give the same name, “{name}”, in one module of courses that are {variant}.',
    repeats:
      '“{format}” gives the name “{name}” {count} times over in courses that are {variant}. Put the week, the unit or a number into it.',
  },
  *find(proof): Generator<Found> {
    for (const part of proof.parts) {
      const why = ambiguityOf(formatOf(part.name))
      if (why)
        yield {
          part: part.key,
          message: 'ambiguous',
          values: { format: part.name, why },
          severity: 'warning',
        }
    }
    const told = new Set<string>()
    for (const { variant, expected } of proof.variants) {
      const words = variantWords(
        variant,
        proof.variants.map((variant) => variant.variant),
      )
      const modules = [
        expected.parts,
        ...everyExpected(expected.parts)
          .filter((part) => part.kind === 'module')
          .map((part) => part.items),
      ]
      for (const siblings of modules) {
        const seen = new Map<string, { key: string; format: string; count: number }>()
        for (const part of siblings) {
          if (part.kind === 'heading' || part.unfilledFields.length > 0) continue
          const name = foldedName(part.name)
          const other = seen.get(name)
          if (!other) {
            seen.set(name, { key: part.key, format: part.definition.name, count: 1 })
            continue
          }
          other.count += 1
          const once = `${part.key} ${other.key}`
          if (told.has(once)) continue
          told.add(once)
          if (other.key !== part.key)
            yield {
              part: part.key,
              message: 'clash',
              values: {
                format: part.definition.name,
                other: other.format,
                name: part.name,
                variant: words,
              },
            }
          else
            yield {
              part: part.key,
              message: 'repeats',
              values: {
                format: part.definition.name,
                name: part.name,
                count: String(
                  siblings.filter((sibling) => foldedName(sibling.name) === name).length,
                ),
                variant: words,
              },
            }
        }
      }
    }
  },
})
