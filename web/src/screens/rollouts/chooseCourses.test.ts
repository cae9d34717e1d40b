import { describe, expect, it } from 'vitest'
import type { CourseSummary } from '@wickerframe/contract'
import { courseSummary } from '../../testing/answers.testing.ts'
import { sortCourses } from './chooseCourses.ts'

const course = (id: number, more: Partial<CourseSummary> = {}): CourseSummary =>
  courseSummary(id, { code: 'NAV 110', classSections: [String(id)], ...more })
const sorts = (...courses: CourseSummary[]) =>
  sortCourses(courses, null).map(({ sort, odd }) => [sort, odd !== null])

describe('courses told apart before a rollout', () => {
  it('shells and deployed courses take part; everything odd waits for a decision', () => {
    expect(
      sorts(
        course(1),
        course(2, { state: 'deployed' }),
        course(3, { state: 'other-content' }),
        course(4, { status: 'preparing' }),
        course(5, { instructors: [] }),
        course(6, { status: 'cancelled' }),
        course(7, { state: 'checked-only' }),
      ),
    ).toEqual([
      ['shell', false],
      ['deployed', false],
      ['other-content', true],
      ['preparing', true],
      ['no-instructor', true],
      ['out', true],
      ['checked-only', true],
    ])
  })
  it('two courses for one class section are odd, both; one that is merged or of another term does not count', () => {
    expect(sorts(course(1), course(2, { classSections: ['1'] }))).toEqual([
      ['duplicate', true],
      ['duplicate', true],
    ])
    expect(sorts(course(1), course(2, { classSections: ['1'], status: 'merged' }))[0]).toEqual([
      'shell',
      false,
    ])
    expect(sorts(course(1), course(2, { classSections: ['1'], term: 'spring-2027' }))[0]).toEqual([
      'shell',
      false,
    ])
  })
  it('courses under another template, or that the template is not meant for, are odd once it is chosen', () => {
    const under = (key: string) => ({ key, title: key, version: 1, newest: 1 })
    const sorted = sortCourses(
      [
        course(1, { state: 'deployed', template: under('harbour') }),
        course(2, { state: 'deployed', template: under('distance') }),
        course(3, { modality: 'online' }),
        course(4),
      ],
      { key: 'harbour', appliesTo: { modalities: ['on-campus'], departments: [], weeks: [] } },
    )
    expect(sorted.map(({ sort, odd }) => [sort, odd])).toEqual([
      ['deployed', null],
      ['other-template', 'it stands under distance'],
      ['misfit', 'the template is meant for on-campus courses, and this one is online'],
      ['shell', null],
    ])
  })
})
