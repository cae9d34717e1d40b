import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    {
      title: 'images of the course',
      change: ({ item }) =>
        void (item('home-page').html +=
          '<img src="/files/petrel.jpg" alt="The Petrel under sail">'),
    },
    {
      title: 'a sample that is meant',
      change: ({ item }) =>
        void (item('week-overview', 3).html +=
          '<img src="/files/water-sample.jpg" alt="A water sample in its bottle">'),
    },
  ],
  fails: [
    {
      title: 'a placeholder by its file',
      change: ({ item }) =>
        void (item('home-page').html += '<img src="/files/placeholder-16x9.png" alt="">'),
      evidence: '/files/placeholder-16x9.png',
    },
    {
      title: 'by its words',
      change: ({ item }) =>
        void (item('welcome').html += '<img src="/files/a1.png" alt="Your photo here">'),
      evidence: 'Your photo here',
    },
  ],
}
