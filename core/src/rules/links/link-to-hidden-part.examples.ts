import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'links as deployed', change: () => {} },
    {
      title: 'a link to a week that is not needed yet',
      change: ({ item, module }) => {
        module('week', 7).published = false
        item('week-overview', 3).html +=
          `<a href="${item('week-overview', 7).url}">Later: week 7</a>`
      },
    },
  ],
  fails: [
    {
      title: 'a page of this week that is hidden',
      change: ({ item }) => {
        item('checklist', 3).published = false
        item('welcome').html += `<a href="${item('checklist', 3).url}">Checklist</a>`
      },
      evidence: '“Week 3 checklist”',
    },
    {
      title: 'a page of the instructor’s own that is hidden',
      change: ({ module, item }) => {
        module('week', 2).children.push({
          ...item('week-overview', 2),
          id: 'own',
          url: '/courses/example/own',
          name: 'Knots',
          published: false,
          recordedAs: undefined,
        })
        item('week-overview', 2).html += '<a href="/courses/example/own">Knots</a>'
      },
      evidence: '“Knots”',
    },
  ],
}
