import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'a template that sets no opening', change: () => {} },
    {
      title: 'next week is open already, within the allowance',
      change: ({ template }) => {
        for (const part of template.parts)
          if (part.key === 'week')
            part.settings.opens = { from: 'week-start', days: 0, time: '00:00' }
      },
      asOf: '2026-10-12',
    },
  ],
  fails: [
    {
      title: 'a week a month ahead is open',
      change: ({ template }) => {
        for (const part of template.parts)
          if (part.key === 'week')
            part.settings.opens = { from: 'week-start', days: 0, time: '00:00' }
      },
      evidence: 'no opening is set',
    },
    {
      title: 'its opening was set to last week',
      change: ({ template, module }) => {
        for (const part of template.parts)
          if (part.key === 'week')
            part.settings.opens = { from: 'week-start', days: 0, time: '00:00' }
        module('week', 8).opensAt = '2026-09-08T12:00:00Z'
      },
      evidence: 'opened 2026-09-08',
    },
  ],
}
