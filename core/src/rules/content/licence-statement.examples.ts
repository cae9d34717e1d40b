import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    {
      title: 'with its licence beneath',
      change: ({ item }) =>
        void (item('week-overview', 3).html +=
          '<p><img src="https://pictures.example/buoy.jpg" alt="A buoy"></p><p>Photo: A. Berg, CC BY 4.0</p>'),
    },
    {
      title: 'an image of the course’s own',
      change: ({ item }) =>
        void (item('week-overview', 3).html +=
          '<img src="/courses/example/files/buoy.jpg" alt="A buoy">'),
    },
  ],
  fails: [
    {
      title: 'taken from the web',
      change: ({ item }) =>
        void (item('week-overview', 3).html +=
          '<p><img src="https://pictures.example/buoy.jpg" alt="A buoy"></p><p>Learn the shapes.</p>'),
      evidence: 'pictures.example',
    },
    {
      title: 'the licence stands with another image',
      change: ({ item }) =>
        void (item('week-overview', 2).html +=
          '<p>One</p><img src="https://a.example/1.jpg" alt="One"><p>Photo by B. Holm</p><p>Two</p><p>Three</p><p>Four</p><img src="https://b.example/2.jpg" alt="Two"><p>Five</p>'),
      evidence: 'b.example',
    },
  ],
}
