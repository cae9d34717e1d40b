import { addDays } from '../calendar/index.ts'
import { Facts, modalities } from '../course/index.ts'
import { readDocument } from '../document/index.ts'
import { expandCourse, type ExpectedCourse } from '../expand/index.ts'
import { partsWithin, type Template } from '../template/index.ts'
import { departmentsTold } from './departmentsTold.ts'

/** One kind of course a template may be used for. */
export interface Variant {
  modality: Facts['modality']
  weeks: number
  department: string
  classSections: Facts['classSectionKind']
}

/** A variant in words, e.g. `on campus, 16 weeks`. */
export const variantWords = (variant: Variant, among: readonly Variant[] = []): string =>
  [
    variant.modality.replace('-', ' '),
    `${variant.weeks} weeks`,
    ...(among.some(({ department }) => department !== variant.department)
      ? [variant.department]
      : []),
    ...(among.some(({ classSections }) => classSections !== variant.classSections)
      ? [variant.classSections === 'own' ? 'own class sections' : 'shared class sections']
      : []),
  ].join(', ')

const anyDepartment = 'ANY'
const usualWeeks = 16
const mostVariants = 60

const isModality = (name: string): name is Facts['modality'] =>
  modalities.some((modality) => modality === name)

/**
 * The kinds of course a template may be used for: the modalities and lengths it applies to, and the departments and
 * kinds of class section that its conditions tell apart. At most 60.
 */
export const variantsOf = (template: Template): Variant[] => {
  const conditions = partsWithin(template.parts).flatMap((part) => (part.when ? [part.when] : []))
  const mentioned = conditions.flatMap((when) => when.modalities ?? [])
  const applied =
    template.appliesTo.modalities.length > 0
      ? template.appliesTo.modalities
      : mentioned.length > 0
        ? modalities
        : ['on-campus']
  const byModality = applied.filter(isModality)
  const lengths =
    template.appliesTo.weeks.length > 0
      ? template.appliesTo.weeks
      : [
          ...new Set([
            usualWeeks,
            ...conditions.flatMap((when) => (when.weeks ? [when.weeks.from, when.weeks.to] : [])),
          ]),
        ]
  const named = [...departmentsTold(template)]
  const departments =
    template.appliesTo.departments.length > 0
      ? template.appliesTo.departments
      : named.length > 0
        ? [...named, anyDepartment]
        : [anyDepartment]
  const kinds: Facts['classSectionKind'][] = conditions.some((when) => when.classSections)
    ? ['own', 'shared']
    : ['own']
  return byModality
    .flatMap((modality) =>
      lengths.flatMap((weeks) =>
        departments.flatMap((department) =>
          kinds.map((classSections): Variant => ({ modality, weeks, department, classSections })),
        ),
      ),
    )
    .slice(0, mostVariants)
}

/** A made-up course of a variant, in a term of just its weeks with a pause in the middle, to work a template out for. */
export const variantFacts = (variant: Variant): Facts => {
  const firstDay = '2026-08-31'
  const pause = addDays(firstDay, Math.floor(variant.weeks / 2) * 7)
  const read = readDocument(Facts, {
    schema: 'wickerframe.facts/1',
    code: 'XYZ 100',
    title: 'Any course',
    department: variant.department,
    modality: variant.modality,
    weeks: variant.weeks,
    classSections: ['01'],
    classSectionKind: variant.classSections,
    instructors: [{ name: 'Any Instructor', email: 'instructor@example.org' }],
    term: {
      code: 'any-term',
      title: 'Any term',
      timeZone: 'UTC',
      firstDay,
      lastDay: addDays(firstDay, variant.weeks * 7 - 3),
      breaks: variant.weeks > 8 ? [{ name: 'Pause', first: pause, last: addDays(pause, 4) }] : [],
    },
  })
  if (!read.ok)
    throw new Error(
      `a variant cannot be made of ${JSON.stringify(variant)}: ${read.problems[0]?.path} ${read.problems[0]?.expected}`,
    )
  return read.value
}

export interface VariantCourse {
  variant: Variant
  expected: ExpectedCourse
}

/** A template worked out for every kind of course it may be used for. */
export const everyVariant = (template: Template): VariantCourse[] =>
  variantsOf(template).flatMap((variant) => {
    const expansion = expandCourse({ template, facts: variantFacts(variant), mintFrom: 'variant' })
    return expansion.ok ? [{ variant, expected: expansion.value }] : []
  })
