import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'where to begin has a rule of its own', change: () => {} },
    {
      title: 'a signpost that leads to its page',
      change: ({ template, item }) => {
        template.home.blocks.push({
          kind: 'signposts',
          key: 'ways',
          strength: 'must',
          links: [{ text: 'Syllabus', to: 'syllabus' }],
        })
        item('home-page').html +=
          `<div data-wicker-block="ways"><ul><li><a href="${item('syllabus').url}">Syllabus</a></li></ul></div>`
      },
    },
  ],
  fails: [
    {
      title: 'it leads to another page',
      change: ({ template, item }) => {
        template.home.blocks.push({
          kind: 'signposts',
          key: 'ways',
          strength: 'must',
          links: [{ text: 'Syllabus', to: 'syllabus' }],
        })
        item('home-page').html +=
          `<div data-wicker-block="ways"><ul><li><a href="${item('welcome').url}">Syllabus</a></li></ul></div>`
      },
      evidence: '/courses/example/item-2',
    },
    {
      title: 'the link was taken off',
      change: ({ template, item }) => {
        template.home.blocks.push({
          kind: 'signposts',
          key: 'ways',
          strength: 'must',
          links: [{ text: 'Syllabus', to: 'syllabus' }],
        })
        item('home-page').html += '<div data-wicker-block="ways"><ul><li>Syllabus</li></ul></div>'
      },
      evidence: 'no link',
    },
  ],
}
