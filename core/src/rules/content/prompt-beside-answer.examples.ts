import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'answers alone', change: () => {} },
    {
      title: 'an answer that only begins alike',
      change: ({ item }) =>
        void (item('home-page').html = (item('home-page').html ?? '').replace(
          'Tuesdays 10 to 11, room 4',
          'When can you see me? Tuesdays 10 to 11',
        )),
    },
  ],
  fails: [
    {
      title: 'the prompt stands before the answer',
      change: ({ item }) =>
        void (item('home-page').html = (item('home-page').html ?? '').replace(
          'Tuesdays 10 to 11, room 4',
          'When can students see you? Tuesdays 10 to 11, room 4',
        )),
      evidence: 'When can students see you? Tuesdays 10 to 11, room 4',
    },
    {
      title: 'in a paragraph of its own',
      change: ({ item }) =>
        void (item('week-overview', 3).html = (item('week-overview', 3).html ?? '').replace(
          '<p>We learn',
          '<p>In two or three sentences, say what this week is about.</p><p>We learn',
        )),
      evidence:
        'In two or three sentences, say what this week is about. We learn what the chart leaves out.',
    },
  ],
}
