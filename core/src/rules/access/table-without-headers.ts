import { z } from 'zod'
import { oncePerPage } from '../../page/index.ts'
import { defineRule } from '../rule.ts'
import { pageFaults } from '../pageFaults.ts'

const faultsIn = oncePerPage((page) =>
  page.tables
    .filter((table) => !table.layout && table.headers === 0 && table.rows > 1 && table.cells >= 4)
    .map((table) => `${table.rows} rows, ${table.cells} cells`),
)

export const tableWithoutHeaders = defineRule({
  id: 'table-without-headers',
  group: 'access',
  title: 'Tables have header cells',
  why: 'Cell by cell, a screen reader cannot say what a number belongs to (WCAG 2.2, 1.3.1 Info and relationships).',
  strength: 'should',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 3,
  messages: { headers: 'In “{item}” a table has no header cells ({seen}){also}.' },
  check: (context) =>
    pageFaults(context, {
      applies: ({ page }) => page.tables.some((table) => !table.layout),
      faults: ({ page }) => faultsIn(page),
      message: 'headers',
      expected: 'header cells in the first row or column',
      evidence: 'count',
    }),
  examples: {
    passes: [
      {
        title: 'a header row',
        change: ({ item }) =>
          void (item('week-overview', 3).html +=
            '<table><tr><th>Port</th><th>High</th></tr><tr><td>Sound</td><td>4.2</td></tr></table>'),
      },
      {
        title: 'a table marked as layout only',
        change: ({ item }) =>
          void (item('week-overview', 3).html +=
            '<table role="presentation"><tr><td>a</td><td>b</td></tr><tr><td>c</td><td>d</td></tr></table>'),
      },
    ],
    fails: [
      {
        title: 'figures without headers',
        change: ({ item }) =>
          void (item('week-overview', 3).html +=
            '<table><tr><td>Port</td><td>High</td></tr><tr><td>Sound</td><td>4.2</td></tr></table>'),
        evidence: '2 rows, 4 cells',
      },
      {
        title: 'bold words are no headers',
        change: ({ item }) =>
          void (item('week-overview', 2).html +=
            '<table><tbody><tr><td><b>Light</b></td><td><b>Period</b></td></tr><tr><td>Fl</td><td>5s</td></tr><tr><td>Oc</td><td>8s</td></tr></tbody></table>'),
        evidence: '3 rows, 6 cells',
      },
    ],
  },
})
