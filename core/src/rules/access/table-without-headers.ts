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
  why: 'Cell by cell, a screen reader cannot say what a number belongs to.',
  wcag: ['1.3.1'],
  untold:
    'Tables that are declared to be layout, and tables of a single row or of fewer than four cells.',
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
})
