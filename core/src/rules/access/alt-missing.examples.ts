import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    {
      title: 'an image with words',
      change: ({ item }) =>
        void (item('week-overview', 3).html +=
          '<img src="tide.png" alt="The tide tables for Kestrel Sound">'),
    },
    {
      title: 'decoration, marked as such',
      change: ({ item }) =>
        void (item('week-overview', 3).html +=
          '<img src="line.png" alt=""><img src="wave.png" role="presentation">'),
    },
  ],
  fails: [
    {
      title: 'no alternative text',
      change: ({ item }) => void (item('week-overview', 3).html += '<p><img src="tide.png"></p>'),
      evidence: 'tide.png',
    },
    {
      title: 'on a page of the instructor’s own',
      change: ({ module, item }) =>
        void module('week', 2).children.push({
          ...item('week-overview', 2),
          id: 'own',
          name: 'Knots',
          html: '<img src="bowline.jpg">',
          recordedAs: undefined,
        }),
      evidence: 'bowline.jpg',
    },
  ],
}
