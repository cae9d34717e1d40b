import type { ExampleCourse, RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    {
      title: 'red buoys are no use of colour',
      change: ({ item }) =>
        void (item('week-overview', 3).html +=
          '<p>Port marks are in red, starboard marks in green.</p>'),
    },
    {
      title: 'coloured text that says what it is',
      change: ({ item }) =>
        void (item('week-overview', 3).html +=
          '<p style="color:#8b0000">Required: read chapter 2.</p>'),
    },
  ],
  fails: [
    ...[
      'The pages in red are required.',
      'Those in blue are for the exam.',
      'Read the chapters in green before class.',
    ].map((sentence) => ({
      title: sentence,
      change: ({ item }: ExampleCourse) =>
        void (item('week-overview', 3).html +=
          `<p>${sentence}</p><p style="color:#8b0000">Chapter 2</p>`),
      evidence: sentence,
    })),
    {
      title: 'required items in red',
      change: ({ item }) =>
        void (item('week-overview', 3).html +=
          '<p>Tasks that are in red must be done.</p><p style="color:#8b0000">Read chapter 2.</p>'),
      evidence: 'Tasks that are in red must be done.',
    },
    {
      title: 'the green ones',
      change: ({ item }) =>
        void (item('week-overview', 2).html +=
          '<p>Do all green questions by Friday.</p><p><font color="green">What is a neap?</font></p>'),
      evidence: 'Do all green questions by Friday.',
    },
  ],
}
