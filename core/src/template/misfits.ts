import type { Template } from './template.ts'

/** What a template tells courses apart by. */
export interface Fitted {
  weeks: number
  modality: string
  department: string
}

/** What the template is meant for and the course is not, in words for a list; empty when it fits. */
export const misfitsOf = (appliesTo: Template['appliesTo'], course: Fitted): string[] => [
  ...(appliesTo.weeks.length > 0 && !appliesTo.weeks.includes(course.weeks)
    ? [`${appliesTo.weeks.join(' or ')} weeks, and this course has ${course.weeks}`]
    : []),
  ...(appliesTo.modalities.length > 0 && !appliesTo.modalities.includes(course.modality)
    ? [`${appliesTo.modalities.join(' or ')} courses, and this one is ${course.modality}`]
    : []),
  ...(appliesTo.departments.length > 0 && !appliesTo.departments.includes(course.department)
    ? [`${appliesTo.departments.join(' or ')}, and this is ${course.department}`]
    : []),
]
