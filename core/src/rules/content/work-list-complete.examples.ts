import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'the list as deployed', change: () => {} },
    {
      title: 'a page of the instructor’s own need not be listed',
      change: ({ module, item }) =>
        void module('week', 2).children.push({
          ...item('checklist', 2),
          id: 'own',
          name: 'Sea stories',
          recordedAs: undefined,
        }),
    },
    {
      title: 'a discussion of the instructor’s own, neither graded nor due',
      change: ({ module, item }) =>
        void module('week', 3).children.splice(1, 0, {
          ...item('discussion', 3),
          id: 'talk',
          name: 'Talk among yourselves',
          url: '/courses/example/items/talk',
          points: null,
          dueAt: null,
          recordedAs: undefined,
        }),
    },
  ],
  fails: [
    {
      title: 'a quiz of the instructor’s own is not listed',
      change: ({ module, item }) =>
        void module('week', 2).children.push({
          ...item('quiz', 2),
          id: 'own',
          url: '/courses/example/own',
          name: 'Lights quiz',
          recordedAs: undefined,
        }),
      evidence: 'Lights quiz',
    },
    {
      title: 'the discussion was removed, the list still names it in plain words',
      change: ({ module, item }) => {
        item('week-overview', 3).html = (item('week-overview', 3).html ?? '').replace(
          /<a [^>]*>([^<]*Discussion 3[^<]*)<\/a>/,
          '$1',
        )
        module('week', 3).children.splice(
          module('week', 3).children.indexOf(item('discussion', 3)),
          1,
        )
      },
      evidence: 'NAV 110 · Discussion 3: Compass',
    },
    {
      title: 'the discussion is there, the list names it without leading to it',
      change: ({ item }) =>
        void (item('week-overview', 3).html = (item('week-overview', 3).html ?? '').replace(
          /<a [^>]*>([^<]*Discussion 3[^<]*)<\/a>/,
          '$1',
        )),
      evidence: 'NAV 110 · Discussion 3: Compass',
    },
  ],
}
