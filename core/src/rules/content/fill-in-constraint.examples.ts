import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'long enough, and a file where a file is asked for', change: () => {} },
    {
      title: 'an unfilled one is told by another rule',
      change: ({ item }) =>
        void (item('welcome').html = (item('welcome').html ?? '').replace(
          /I have sailed[^<]*/,
          'Tell students who you are.',
        )),
    },
  ],
  fails: [
    {
      title: 'one word where five are wanted',
      change: ({ item }) =>
        void (item('welcome').html = (item('welcome').html ?? '').replace(
          /I have sailed[^<]*/,
          'Hello.',
        )),
      evidence: 'Hello.',
    },
    {
      title: 'words where a file is asked for',
      change: ({ item }) =>
        void (item('syllabus').html = (item('syllabus').html ?? '').replace(
          /<a href="[^"]*files[^"]*">[^<]*<\/a>/,
          'Handed out in class.',
        )),
      evidence: 'Handed out in class.',
    },
  ],
}
