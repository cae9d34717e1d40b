import type { Course } from '../course/index.ts'
import { everyExpected, type ExpectedCourse, wantedFields, type Fields } from '../expand/index.ts'
import { blockHtmlOn } from '../page/index.ts'
import type { Base, FieldBase } from './base.ts'
import type { Bodies } from './bodies.ts'
import { baseAfter } from './baseAfter.ts'
import { keptRef, withLinks } from './links.ts'
import type { NextEntry } from './nextBase.ts'
import { formatOfName, wantedCourseFields } from './wantedFields.ts'

const sentOnly = (fields: Fields): Record<string, FieldBase> =>
  Object.fromEntries(
    Object.entries(fields).map(([field, value]) => [
      field,
      { sent: (value ?? null) as FieldBase['sent'], echo: null },
    ]),
  )

/**
 * The base of a course of which only the state right after a deployment is known: what the template wanted then was sent,
 * and what stands in the course is what the platform made of it.
 * @param placed which part instance is which module or item of the course
 */
export const baseOfCourse = (
  expected: ExpectedCourse,
  course: Course,
  placed: ReadonlyMap<string, string>,
  bodies: Bodies,
  onDate: string,
): Base => {
  const parts = [
    ...everyExpected(expected.parts).filter((part) => part.kind === 'module' || !part.inBreak),
    expected.home,
  ]
  const partOf = new Map(parts.map((part) => [part.instance, part]))
  const ofCourse = wantedCourseFields(expected)
  const next = parts.flatMap((part): NextEntry[] => {
    const platformId = placed.get(part.instance)
    if (platformId === undefined) return []
    const fields = wantedFields(part, expected)
    return [
      {
        instance: part.instance,
        platformId,
        template: expected.template.key,
        part: part.key,
        repetition: part.repetition,
        number: part.repetitionNumber,
        kind: part.kind,
        parent: part.parent,
        format: formatOfName(part),
        fields: sentOnly(fields),
        freshFields: Object.keys(fields),
        blocks: part.blocks.map((block) => ({
          key: block.key,
          sent: bodies.idOf(
            withLinks(blockHtmlOn(block, onDate), (instance) => keptRef(instance, partOf)),
          ),
          page: null,
          fresh: true,
        })),
        page: null,
        freshPage: true,
      },
    ]
  })
  return baseAfter(
    {
      course: {
        ...sentOnly(ofCourse),
        home: { sent: expected.home.instance, echo: expected.home.instance },
      },
      freshCourseFields: Object.keys(ofCourse),
      parts: next,
    },
    {},
    course,
    bodies,
  )
}
