import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    {
      title: 'words',
      change: ({ item }) =>
        void (item('week-overview', 3).html +=
          '<img src="dsc1.jpg" alt="A bowline tied around a bollard">'),
    },
    {
      title: 'words that end in a file’s kind',
      change: ({ item }) =>
        void (item('week-overview', 3).html +=
          '<img src="a.png" alt="How to save a chart as a .png, step one: choose Export">'),
    },
  ],
  fails: [
    {
      title: 'a file name',
      change: ({ item }) =>
        void (item('week-overview', 3).html += '<img src="dsc1.jpg" alt="DSC_0412.JPG">'),
      evidence: 'DSC_0412.JPG',
    },
    {
      title: 'what a camera writes',
      change: ({ item }) =>
        void (item('week-overview', 3).html += '<img src="x.jpg" alt="image 3">'),
      evidence: 'image 3',
    },
  ],
}
