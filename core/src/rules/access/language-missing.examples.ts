import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'an English course in English', change: () => {} },
    {
      title: 'a French passage that says so',
      change: ({ item }) =>
        void (item('week-overview', 3).html +=
          '<p lang="fr">Les marées sont plus fortes dans la baie que dans le port, et il faut les connaître avant de partir.</p>'),
    },
    {
      title: 'a few foreign words',
      change: ({ item }) =>
        void (item('week-overview', 3).html +=
          '<p>The call “mayday” comes from the French m’aidez, help me, and is said three times.</p>'),
    },
  ],
  fails: [
    {
      title: 'a French passage',
      change: ({ item }) =>
        void (item('week-overview', 3).html +=
          '<p>Les marées sont plus fortes dans la baie que dans le port, et il faut les connaître avant de partir.</p>'),
      evidence:
        'Les marées sont plus fortes dans la baie que dans le port, et il faut les connaître avant de partir.',
    },
    {
      title: 'the course itself says nothing',
      change: ({ course }) => void (course.settings = { gradesShown: true }),
      evidence: 'no language',
    },
  ],
}
