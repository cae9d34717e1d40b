import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'both objectives serve an outcome', change: () => {} },
    {
      title: 'a template without outcomes',
      change: ({ template }) => void (template.outcomes = []),
    },
  ],
  fails: [
    {
      title: 'an objective that serves none',
      change: ({ template }) => {
        for (const part of template.parts)
          if (part.kind === 'module')
            part.objectives.push({ key: `knots-${part.key}`, text: 'Tie twelve knots', serves: [] })
      },
      evidence: 'Tie twelve knots',
    },
    {
      title: 'two that serve only each other',
      change: ({ template }) => {
        const [part] = template.parts.filter(({ kind }) => kind === 'module')
        if (part?.kind === 'module')
          part.objectives.push(
            { key: 'knots', text: 'Tie twelve knots', serves: ['ropes'] },
            { key: 'ropes', text: 'Tell ropes apart', serves: ['knots'] },
          )
      },
      evidence: 'Tell ropes apart',
    },
    {
      title: 'it serves an outcome that was taken out',
      change: ({ template }) => void template.outcomes.splice(0, 1),
      evidence: 'Fix a position',
    },
  ],
}
