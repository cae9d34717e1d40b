import { exampleTemplate } from '../rules/example/exampleCourse.ts'
import { everyItem, type Item, type Template } from '../template/index.ts'

/** A version of the example's template that is changed so. */
export const changedExample = (change: (template: Template) => void): Template => {
  const template = exampleTemplate()
  change(template)
  return template
}

/** An item of a template by its key. */
export const partOf = (template: Template, key: string): Item => {
  const found = everyItem(template).find((item) => item.key === key)
  if (!found) throw new Error(`no part ${key}`)
  return found
}
