import { courseModule } from '../example/courseParts.ts'
import type { CourseModule } from '../../course/index.ts'
import type { RuleExamples } from '../rule.ts'

const extra = (name: string): CourseModule => courseModule('extra', name)

export const examples: RuleExamples = {
  passes: [
    { title: 'weeks that follow one another', change: () => {} },
    {
      title: 'a week without dates in its name',
      change: ({ module }) => void (module('week', 3).name = 'Week 3: Compass'),
    },
    {
      title: 'units of which one claims a week of another, which is asked about as a whole',
      change: ({ course }) => {
        course.modules = [
          ...course.modules.slice(0, 1),
          ...['Unit 1 · Aug 31 – Sep 20', 'Unit 2 · Sep 14 – Oct 4', 'Unit 3 · Oct 5 – Oct 23'].map(
            (name, i) => ({ ...extra(name), id: `unit-${i}` }),
          ),
        ]
      },
    },
  ],
  fails: [
    {
      title: 'a week that reaches into the next, which is as it should be',
      change: ({ module }) => void (module('week', 3).name = 'Week 3 · Sep 14 – Sep 24 · Compass'),
      evidence: 'Sep 14 – Sep 24',
    },
    {
      title: 'an extra module over the days of two weeks',
      change: ({ course }) => void course.modules.push(extra('Harbour days, Sep 14 – Sep 25')),
      evidence: 'Sep 14 – Sep 25',
    },
    {
      title: 'a week that begins too early',
      change: ({ module }) => void (module('week', 4).name = 'Week 4 · Sep 17 – Sep 27 · Tides'),
      evidence: 'Sep 17 – Sep 27',
    },
  ],
}
