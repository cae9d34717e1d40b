import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    {
      title: 'no list, no finding',
      change: ({ item }) =>
        void (item('week-overview', 3).html += '<a href="https://anywhere.example/">Anywhere</a>'),
    },
    {
      title: 'a host below an allowed one',
      change: ({ template, item }) => {
        template.policies.push({
          rule: 'link-to-other-platform',
          off: false,
          parameters: { allowed: ['kestrelsound.example'] },
        })
        item('week-overview', 3).html +=
          '<a href="https://library.kestrelsound.example/">Library</a>'
      },
    },
  ],
  fails: [
    {
      title: 'not on the list',
      change: ({ template, item }) => {
        template.policies.push({
          rule: 'link-to-other-platform',
          off: false,
          parameters: { allowed: ['kestrelsound.example'] },
        })
        item('week-overview', 3).html += '<a href="https://freebooks.example/x">Book</a>'
      },
      evidence: 'freebooks.example',
    },
    {
      title: 'a host that only ends alike',
      change: ({ template, item }) => {
        template.policies.push({
          rule: 'link-to-other-platform',
          off: false,
          parameters: { allowed: ['kestrelsound.example'] },
        })
        item('week-overview', 3).html += '<a href="https://notkestrelsound.example/">Book</a>'
      },
      evidence: 'notkestrelsound.example',
    },
  ],
}
