import { everyExpected, type ExpectedCourse } from '../expand/index.ts'
import { homePageKey, isModule, type Part, type Template } from '../template/index.ts'

/** One part of a template, and what becomes of it in each of several courses. */
export interface SideBySideRow {
  key: string
  depth: number
  kind: Part['kind']
  format: string
  /** For each course: how often the part is there, and the first name it has; null where it is not. */
  cells: ({ count: number; name: string } | null)[]
  /** Whether the courses differ in it. */
  differs: boolean
}

/** A template's parts, each with what becomes of it in several expected courses, in the template's order. */
export const sideBySide = (
  template: Template,
  courses: readonly ExpectedCourse[],
): SideBySideRow[] => {
  const found = courses.map((course) => {
    const byKey = new Map<string, { count: number; name: string }>([
      [homePageKey, { count: 1, name: course.home.name }],
    ])
    for (const part of everyExpected(course.parts)) {
      if (part.inBreak && part.kind !== 'module') continue
      const known = byKey.get(part.key)
      if (known) known.count += 1
      else byKey.set(part.key, { count: 1, name: part.name })
    }
    return byKey
  })
  const row = (key: string, depth: number, kind: Part['kind'], format: string): SideBySideRow => {
    const cells = found.map((variant) => variant.get(key) ?? null)
    return {
      key,
      depth,
      kind,
      format,
      cells,
      differs: cells.some(
        (cell) => (cell === null) !== (cells[0] === null) || cell?.count !== cells[0]?.count,
      ),
    }
  }
  const visit = (parts: readonly Part[], depth: number): SideBySideRow[] =>
    parts.flatMap((part) => [
      row(part.key, depth, part.kind, part.name),
      ...(isModule(part)
        ? [
            ...visit(part.items, depth + 1),
            ...part.exceptions.flatMap((exception) => visit(exception.add, depth + 1)),
          ]
        : []),
    ])
  return [row(homePageKey, 0, 'page', template.home.name), ...visit(template.parts, 0)]
}
