import {
  columnOf,
  modulesOfParts,
  type CheckResult,
  type Finding,
  type Template,
} from '@wickerframe/core'

/** Findings whose requirement stands in one column of the weave. */
export const findingsAt = (result: CheckResult, template: Template, column: string): Finding[] => {
  const modules = modulesOfParts(template)
  const there = new Set(
    result.outcomes
      .filter((outcome) => columnOf(outcome, modules) === column)
      .map((outcome) => outcome.fingerprint),
  )
  return result.findings.flatMap((finding) => {
    const places = finding.places.filter((place) => there.has(place.fingerprint))
    return places.length > 0
      ? [{ ...finding, message: places[0]?.message ?? finding.message, places }]
      : []
  })
}

/** What a column of the weave is called. */
export const columnTitle = (template: Template | null, column: string): string => {
  if (column.startsWith('week:')) return `Week ${column.slice(5)}`
  if (column.startsWith('module:'))
    return template?.parts.find((part) => part.key === column.slice(7))?.name ?? column.slice(7)
  return { home: 'the home page', names: 'names', course: 'the whole course' }[column] ?? column
}
