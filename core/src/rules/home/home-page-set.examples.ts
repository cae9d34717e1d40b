import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'the home page as deployed', change: () => {} },
    {
      title: 'a home page made again by hand and set',
      change: ({ course, item }) => {
        const page = item('home-page')
        delete page.recordedAs
        page.id = 'new-home'
        course.homePage = 'new-home'
      },
    },
  ],
  fails: [
    {
      title: 'no home page is set',
      change: ({ course }) => void (course.homePage = null),
      evidence: 'no home page',
    },
    {
      title: 'another page is set',
      change: ({ course, item }) => void (course.homePage = item('welcome').id),
      evidence: 'Welcome to NAV 110',
    },
  ],
}
