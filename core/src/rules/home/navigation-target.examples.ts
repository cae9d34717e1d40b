import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'as deployed', change: () => {} },
    {
      title: 'the platform does not tell where entries lead',
      change: ({ course }) => {
        course.navigation = course.navigation.map(({ label, hidden }) => ({ label, hidden }))
      },
    },
    {
      title: 'an entry of the instructor’s own leads out of the course',
      change: ({ course }) =>
        void course.navigation.push({
          label: 'Weather',
          hidden: false,
          to: 'https://weather.example/',
        }),
    },
  ],
  fails: [
    {
      title: 'grades lead to the calendar',
      change: ({ course }) =>
        void (course.navigation[2] = { label: 'Grades', hidden: false, to: 'place:calendar' }),
      evidence: 'Grades: the calendar',
    },
    {
      title: 'where to begin leads to another page',
      change: ({ course, item }) =>
        void (course.navigation[4] = {
          label: 'Begin',
          hidden: false,
          to: `item:${item('week-overview').id}`,
        }),
      evidence: 'Begin: “Week 1 overview”',
    },
    {
      title: 'where to begin leads to what is gone',
      change: ({ course }) =>
        void (course.navigation[4] = { label: 'Begin', hidden: false, to: 'item:gone-9' }),
      evidence: 'Begin: what is not there',
    },
  ],
}
