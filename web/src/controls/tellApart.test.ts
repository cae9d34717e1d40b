import { describe, expect, it } from 'vitest'
import { alikeAmong, tellApart, type NamedCourse } from './tellApart.ts'

const course = (
  platformId: string,
  classSections: string[],
  title = 'Navigation',
): NamedCourse => ({ platformId, code: 'NAV 110', title, classSections })

describe('courses of one title', () => {
  it('are told apart by class section, and by their number where that is the same or missing', () => {
    const told = tellApart([
      course('ks-1', ['01']),
      course('ks-2', ['02', '03']),
      course('ks-3', ['04']),
      course('ks-4', ['04']),
      course('ks-5', ['04'], 'Seamanship'),
      course('ks-6', []),
    ])
    expect(Object.fromEntries(told)).toEqual({
      'ks-1': '01',
      'ks-2': '02, 03',
      'ks-3': '04, ks-3',
      'ks-4': '04, ks-4',
      'ks-5': '04',
      'ks-6': 'ks-6',
    })
  })
  it('are alike where only their numbers differ, and where they have no class section', () => {
    const courses = [course('ks-1', ['01']), course('ks-2', ['04']), course('ks-3', ['04'])]
    const isAlike = alikeAmong([...courses, course('ks-4', [])])
    expect([...courses, course('ks-4', []), course('ks-5', [])].map(isAlike)).toEqual([
      false,
      true,
      true,
      true,
      false,
    ])
  })
})
