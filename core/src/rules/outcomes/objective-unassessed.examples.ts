import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'both objectives are assessed', change: () => {} },
    {
      title: 'a module’s objective that one of its pages’ serves, which is assessed',
      change: ({ template }) => {
        const [part] = template.parts.filter(
          (part) => part.kind === 'module' && part.objectives.length > 0,
        )
        if (part?.kind !== 'module') return
        const [assessed] = part.objectives
        part.objectives.push({
          key: 'whole',
          text: 'Take a boat home',
          serves: assessed?.serves ?? [],
        })
        assessed?.serves.push('whole')
      },
    },
    {
      title: 'a template without outcomes',
      change: ({ template }) => void (template.outcomes = []),
    },
  ],
  fails: [
    {
      title: 'no item names it',
      change: ({ template }) => {
        for (const part of template.parts)
          if (part.kind === 'module')
            for (const item of part.items) if (item.kind === 'discussion') item.assesses = []
      },
      evidence: 'Plan a leg',
    },
    {
      title: 'the items that assess it were all removed',
      change: ({ course }) => {
        for (const module of course.modules)
          module.children = module.children.filter((item) => item.kind !== 'assignment')
      },
      evidence: 'Fix a position',
    },
  ],
}
