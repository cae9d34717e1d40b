import type { CourseChild, CourseItem, CourseModule } from '../../course/index.ts'

/** A module as a platform tells it, open to students and with nothing else said of it. */
export const courseModule = (
  id: string,
  name: string,
  children: CourseChild[] = [],
  more: Partial<CourseModule> = {},
): CourseModule => ({
  id,
  kind: 'module',
  name,
  published: true,
  staffOnly: false,
  opensAt: null,
  ...more,
  children,
})

/** An item as a platform tells it, a page without text unless more is said. */
export const courseItem = (
  id: string,
  name: string,
  more: Partial<CourseItem> = {},
): CourseItem => ({
  id,
  kind: 'page',
  name,
  published: true,
  staffOnly: false,
  opensAt: null,
  dueAt: null,
  closesAt: null,
  points: null,
  category: null,
  html: null,
  url: null,
  target: null,
  studentWork: false,
  ...more,
})
