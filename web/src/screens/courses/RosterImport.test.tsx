import { screen, waitFor } from '@testing-library/react'
import { describe, expect, it, vi } from 'vitest'
import { RosterReport, type ApiProblem, type Progress } from '@wickerframe/contract'
import { show } from '../../testing/screen.testing.tsx'
import { RosterImport } from './RosterImport.tsx'

const report = (more: Partial<RosterReport> = {}): RosterReport =>
  RosterReport.parse({
    dry: true,
    digest: 'd1',
    note: '',
    kept: [],
    added: 2,
    changed: 0,
    unchanged: 1,
    rows: 3,
    errors: [],
    changes: [],
    absent: [],
    ...more,
  })
type Line = { progress: Progress } | { answer: RosterReport } | { problem: ApiProblem }
const problem = (type: string, detail: string): Line => ({
  problem: { type: `urn:wickerframe:problem:${type}`, title: type, status: 409, detail },
})

/** A dialog whose server says these lines to each thing it is asked; what it was asked. */
const opened = (...answers: (readonly Line[] | Promise<readonly Line[]>)[]) => {
  const asked: string[] = []
  vi.stubGlobal('fetch', async (input: string) => {
    asked.push(new URL(input, 'http://wickerframe.test').search)
    const lines = await answers[asked.length - 1]
    return new Response((lines ?? []).map((line) => `${JSON.stringify(line)}\n`).join(''))
  })
  const { user } = show(<RosterImport open onOpenChange={() => undefined} />)
  const choose = (name: string) =>
    user.upload(screen.getByLabelText('Roster file'), new File(['code'], name))
  return { asked, user, choose }
}
const button = () => screen.getByRole<HTMLButtonElement>('button', { name: 'Import' })
const says = (words: RegExp) =>
  waitFor(() => expect(screen.getByRole('status').textContent).toMatch(words))

describe('a roster file', () => {
  it('is told first, then taken as it was told', async () => {
    const { asked, user, choose } = opened(
      [{ progress: { doing: 'comparing', done: 1, of: 3 } }, { answer: report() }],
      [{ answer: report({ dry: false }) }],
    )
    expect(button().disabled).toBe(true)
    await choose('autumn.csv')
    await says(/^The file would add 2 courses, change 0, and leave 1 as they are/)
    await user.click(button())
    await says(/^Imported: added 2 courses/)
    expect(asked).toEqual(['?dry=1', '?shown=d1'])
    expect(button().disabled).toBe(true)
  })
  it.each<[string, Partial<RosterReport>]>([
    ['changes nothing', { added: 0 }],
    [
      'has mistakes',
      { errors: [{ line: 2, column: 'weeks', found: 'many', reason: 'a whole number' }] },
    ],
  ])('that %s is not to be taken', async (_, more) => {
    const { choose } = opened([{ answer: report(more) }])
    await choose('autumn.csv')
    await says(/would add 0 courses|Nothing was taken: 1 place to mend/)
    expect(button().disabled).toBe(true)
  })
  it('with more than is listed says how much more', async () => {
    const many = <T,>(count: number, one: (line: number) => T) =>
      Array.from({ length: count }, (_, i) => one(i + 2))
    const { choose } = opened(
      [
        {
          answer: report({
            changes: many(2000, (line) => ({
              line,
              course: 'NAV 101',
              field: 'title',
              from: 'a',
              to: 'b',
            })),
            absent: many(41, (line) => ({ line, course: 'NAV 1', platformId: `k${line}` })),
            kept: many(42, (line) => ({
              line,
              course: 'NAV 1',
              field: 'title',
              here: 'a',
              file: 'b',
              by: 'Quill',
            })),
          }),
        },
      ],
      [
        {
          answer: report({
            errors: many(60, (line) => ({ line, column: '', found: '', reason: 'eleven fields' })),
          }),
        },
      ],
    )
    await choose('autumn.csv')
    await says(/and 1960 more.*the first 2000; all of them are taken.*and 1 more.*and 2 more/)
    await choose('other.csv')
    await says(/60 places to mend.*whole line.*nothing.*and 10 more$/)
  })
  it('that was chosen in place of another is what is told of, whichever answer comes first', async () => {
    let late: (lines: readonly Line[]) => void = () => undefined
    const { choose } = opened(new Promise((resolve) => (late = resolve)), [
      { answer: report({ added: 7 }) },
    ])
    await choose('first.csv')
    await choose('second.csv')
    await says(/would add 7 courses/)
    late([problem('unusable-input', 'The first file is no table.')])
    await says(/would add 7 courses/)
    expect(screen.queryByText(/no table/)).toBeNull()
    expect(button().disabled).toBe(false)
  })
  it('that would do something else by now is told anew, and not taken', async () => {
    const { asked, user, choose } = opened(
      [{ answer: report() }],
      [problem('changed', 'It would do something else by now.')],
      [{ answer: report({ digest: 'd2', added: 1 }) }],
      [{ answer: report({ dry: false, added: 1 }) }],
    )
    await choose('autumn.csv')
    await says(/would add 2 courses/)
    await user.click(button())
    await says(/something else by now.*would add 1 course,/)
    await user.click(button())
    await says(/^Imported: added 1 course,/)
    expect(asked).toEqual(['?dry=1', '?shown=d1', '?dry=1', '?shown=d2'])
  })
  it('whose answer breaks off says so, and is not said to be taken', async () => {
    const { choose } = opened([{ progress: { doing: 'comparing', done: 1, of: 3 } }])
    await choose('autumn.csv')
    await says(/The server cannot be reached/)
    expect(button().disabled).toBe(true)
  })
})
