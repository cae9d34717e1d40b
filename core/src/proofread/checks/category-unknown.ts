import { defineCheck, type Found } from '../remark.ts'

export const categoryUnknown = defineCheck({
  id: 'category-unknown',
  severity: 'error',
  title: 'Work stands in a category of the grade scheme, and categories hold work',
  messages: {
    unknown: '“{item}” stands in the category “{category}”, which the grade scheme does not have.',
    unused: 'No work stands in the category “{category}”, which carries {weight} of 100.',
    practice: '“{item}” is practice, yet stands in “{category}”, which counts.',
  },
  *find({ template: { grading }, parts }): Generator<Found> {
    if (grading.categories.length === 0) return
    const byName = new Map(grading.categories.map((category) => [category.name, category]))
    const used = new Set<string>()
    for (const part of parts) {
      const name = part.settings.category
      if (name === undefined) continue
      used.add(name)
      const category = byName.get(name)
      if (!category)
        yield { part: part.key, message: 'unknown', values: { item: part.name, category: name } }
      else if (part.settings.practice && category.counts)
        yield {
          part: part.key,
          message: 'practice',
          values: { item: part.name, category: name },
          severity: 'warning',
        }
    }
    for (const category of grading.categories)
      if (!used.has(category.name) && category.weight > 0)
        yield {
          part: null,
          block: category.key,
          message: 'unused',
          values: { category: category.name, weight: String(category.weight) },
          severity: 'warning',
        }
  },
})
