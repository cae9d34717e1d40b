import { z } from 'zod'
import { defineRule, type Verdict } from '../rule.ts'

export const extraModule = defineRule({
  id: 'extra-module',
  group: 'structure',
  title: 'Modules beyond the template',
  why: 'For information: an instructor’s own modules are welcome, and somebody who looks after the course should know of them.',
  strength: 'may',
  parameters: z.strictObject({}),
  mender: 'designer',
  effortMinutes: 1,
  messages: { extra: '“{module}” is a module of the course’s own, with {count} items.' },
  *check(context): Generator<Verdict> {
    const grouped = new Set(
      Object.values(context.groupings).flatMap((reading) =>
        reading.state === 'weekly' ? [] : reading.modules,
      ),
    )
    for (const module of context.modules)
      if (context.partOf(module.id) === null && !grouped.has(module.id))
        yield {
          subject: { about: 'found', id: module.id, name: module.name },
          outcome: 'failed',
          message: 'extra',
          values: { module: module.name, count: String(module.items.length) },
          evidence: [{ kind: 'words', text: module.name }],
          expected: 'nothing',
          itemId: module.id,
          together: 'own-modules',
        }
  },
  examples: {
    passes: [
      { title: 'the modules of the template', change: () => {} },
      {
        title: 'units in place of weeks, which the template accepts',
        change: ({ course }) => {
          const start = course.modules[0]
          course.modules = start ? [start] : []
          for (const [id, name] of [
            ['u1', 'Unit 1 · Weeks 1–2'],
            ['u2', 'Unit 2 · Weeks 3-4'],
            ['u3', 'Unit 3 (weeks 5 to 8)'],
          ] as const)
            course.modules.push({
              id,
              name,
              published: true,
              opensAt: null,
              items: [],
              modules: [],
            })
        },
      },
    ],
    fails: [
      {
        title: 'a module of the instructor’s own',
        change: ({ course }) =>
          void course.modules.push({
            id: 'own',
            name: 'Sea stories',
            published: true,
            opensAt: null,
            items: [],
            modules: [],
          }),
        evidence: 'Sea stories',
      },
      {
        title: 'two of them',
        change: ({ course }) =>
          void course.modules.push(
            { id: 'a', name: 'Song book', published: true, opensAt: null, items: [], modules: [] },
            {
              id: 'b',
              name: 'Galley rota',
              published: false,
              opensAt: null,
              items: [],
              modules: [],
            },
          ),
        evidence: 'Galley rota',
      },
    ],
  },
})
