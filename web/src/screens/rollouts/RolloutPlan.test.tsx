import { screen, within } from '@testing-library/react'
import { describe, expect, it } from 'vitest'
import type { CoursePlan, PlanSummary, ShapeGroup } from '@wickerframe/contract'
import type { PlanStep, ShapeLine } from '@wickerframe/core'
import { exampleTemplate } from '@wickerframe/core/testing'
import { runDetail, runTask } from '../../testing/answers.testing.ts'
import { show } from '../../testing/screen.testing.tsx'
import { Refusal, serve, type Answers } from '../../testing/server.testing.ts'
import { RolloutPlan } from './RolloutPlan.tsx'

const line = (does: ShapeLine['does'], more: Partial<ShapeLine> = {}): ShapeLine => ({
  does,
  part: 'quiz',
  kind: 'assessment',
  name: 'Quiz 1',
  field: null,
  words: '',
  reason: '',
  decided: 0,
  count: 16,
  ...more,
})
const summary = (more: Partial<PlanSummary> = {}): PlanSummary => ({
  state: 'ready',
  reason: '',
  shape: 's',
  lines: [
    line('create'),
    line('change', { part: 'week', kind: 'module', field: 'name', count: 2 }),
  ],
  unchanged: 4,
  undecided: 0,
  additive: true,
  consequences: [],
  digest: 'd',
  ...more,
})
const group = (
  courses: number[],
  more: Partial<PlanSummary> = {},
  leaves: string | null = null,
): ShapeGroup => ({
  shape: courses.join(),
  summary: summary(more),
  courses: courses.map((course) => ({
    course,
    platformId: `p${course}`,
    code: `NAV ${100 + course}`,
    title: `Navigation ${course}`,
    classSections: ['01'],
    state: 'planned',
    leaves,
    digest: `d${course}`,
  })),
})
const conflict: PlanStep = {
  does: 'conflict',
  instance: 'checklist/2',
  part: 'checklist',
  kind: 'page',
  name: 'Week 2 checklist',
  into: null,
  opensAt: null,
  dueAt: null,
  reason: '',
  fields: [
    {
      field: 'name',
      does: 'conflict',
      base: 'Week 2 checklist',
      present: 'My own list',
      wanted: 'Before you cast off',
      result: 'My own list',
      decided: null,
      reason: 'both changed it',
    },
  ],
}
const coursePlan = (steps: PlanStep[]): CoursePlan => {
  const { shape: _, lines: __, ...rest } = summary({ undecided: 1 })
  return {
    ...rest,
    course: 1,
    code: 'NAV 101',
    title: 'Navigation 1',
    classSections: ['01'],
    steps,
    timeZone: 'America/Halifax',
    readAt: '2026-09-16T09:00:00Z',
  }
}
const open = (
  groups: ShapeGroup[],
  {
    may = true,
    except = [] as string[],
    ...more
  }: Answers & { may?: boolean; except?: string[] } = {},
) => {
  const asked = serve({
    rolloutShapes: groups,
    readVersion: { ...exampleTemplate(), version: 2 },
    decideConflicts: {},
    approveRun: {},
    ...more,
  })
  const detail = runDetail(
    groups.flatMap(({ courses }) =>
      courses.map(({ course }) => runTask(course, { state: 'planned' })),
    ),
    {
      kind: 'rollout',
      state: 'planned',
      order: {
        mode: 'version',
        template: 'example-standard',
        version: 2,
        only: null,
        except,
        restore: { fixedText: false, missingParts: false },
        adopt: false,
      },
    },
  )
  return { ...show(<RolloutPlan detail={detail} may={may} />), asked }
}
const bodies = (asked: ReturnType<typeof open>['asked'], route: string) =>
  asked.filter((each) => each.route === route).map(({ body }) => body)

describe('the plan of a rollout', () => {
  it('says what it comes to in all courses together, and that looking alike is told once', async () => {
    open([group([1, 2, 3]), group([4], { lines: [line('create', { count: 1 })] })])
    expect(await screen.findByText(/create 49, change 6/)).toBeTruthy()
    expect(screen.getByText('3 courses: the same 18 changes')).toBeTruthy()
    expect(screen.getByText('1 course: 1 change')).toBeTruthy()
  })
  it('is approved with the plans as they are shown, without those that were left out', async () => {
    const { user, asked } = open([group([1, 2]), group([3])])
    await user.click(await screen.findByRole('checkbox', { name: /^Include 1 course/ }))
    await user.click(screen.getByRole('button', { name: 'open the 2 courses' }))
    await user.click(screen.getByRole('checkbox', { name: /^Include NAV 101/ }))
    await user.click(screen.getByRole('button', { name: 'Approve and run 1 course' }))
    expect(bodies(asked, 'approveRun')).toEqual([{ shown: [{ course: 2, digest: 'd2' }] }])
  })
  it('takes a whole group out and in again with its box, which is neither when only some are in', async () => {
    const { user } = open([group([1, 2])])
    const box = await screen.findByRole<HTMLInputElement>('checkbox', {
      name: /^Include 2 courses/,
    })
    await user.click(screen.getByRole('button', { name: 'open the 2 courses' }))
    await user.click(screen.getByRole('checkbox', { name: /^Include NAV 102/ }))
    expect([box.checked, box.indeterminate]).toEqual([true, true])
    await user.click(box)
    expect(screen.getByRole<HTMLButtonElement>('button', { name: /^Approve/ }).disabled).toBe(true)
    await user.click(box)
    expect(screen.getByRole('button', { name: 'Approve and run 2 courses' })).toBeTruthy()
  })
  it('never runs what cannot be planned, and says why', async () => {
    open([
      group([1]),
      group([2], { state: 'unusable', reason: 'the platform has no course p2', lines: [] }),
    ])
    expect(await screen.findByText('1 course: the platform has no course p2')).toBeTruthy()
    expect(screen.getByRole('button', { name: 'Approve and run 1 course' })).toBeTruthy()
    expect(screen.getByRole<HTMLInputElement>('checkbox', { name: /no course p2/ }).disabled).toBe(
      true,
    )
  })
  it('says loudly when courses would leave another template, and how many conflicts are open', async () => {
    open([group([1, 2], { undecided: 2 }, 'The other')])
    expect(await screen.findByText('2 courses would leave The other.')).toBeTruthy()
    expect(screen.getByText(/^4 conflicts not decided on/)).toBeTruthy()
  })
  it('that is another by now is not run: the reason stands there, and it can be tried again', async () => {
    const { user } = open([group([1])], {
      approveRun: () => {
        throw new Refusal(409, 'a plan is not what you were shown any more')
      },
    })
    await user.click(await screen.findByRole('button', { name: /^Approve/ }))
    expect(await screen.findByText('a plan is not what you were shown any more')).toBeTruthy()
    expect(screen.getByRole<HTMLButtonElement>('button', { name: /^Approve/ }).disabled).toBe(false)
  })
  it('is decided on as a whole, by part and by course', async () => {
    const { user, asked } = open([group([1], { undecided: 1 })], {
      coursePlan: coursePlan([conflict]),
    })
    const whole = await screen.findByRole('combobox', { name: /^Where template and instructor/ })
    await user.selectOptions(whole, 'take')
    await user.click(screen.getByRole('checkbox', { name: 'bring back removed parts' }))
    await user.selectOptions(screen.getByRole('combobox', { name: /^leave out/ }), 'week')
    await user.click(screen.getByRole('button', { name: 'open the course' }))
    await user.click(screen.getByRole('button', { name: 'see the differences' }))
    await user.click(await screen.findByRole('radio', { name: 'take the template’s' }))
    expect(bodies(asked, 'decideConflicts')).toEqual([
      { rule: 'take', decisions: [] },
      { decisions: [], restore: { fixedText: false, missingParts: true } },
      { decisions: [], except: ['week'] },
      { decisions: [{ course: 1, instance: 'checklist/2', field: 'name', decision: 'take' }] },
    ])
  })
  it('shows both sides of a conflict word by word', async () => {
    const { user } = open([group([1], { undecided: 1 })], { coursePlan: coursePlan([conflict]) })
    await user.click(await screen.findByRole('button', { name: 'open the course' }))
    await user.click(screen.getByRole('button', { name: 'see the differences' }))
    const plan = within(await screen.findByRole('region', { name: /^Plan for NAV 101/ }))
    expect(plan.getByText('in the course now').parentElement?.textContent).toContain('My own list')
    expect(plan.getByText('in the template now').parentElement?.textContent).toContain(
      'Before you cast off',
    )
  })
  it('names the parts that are left out, which can be had again', async () => {
    const { user, asked } = open([group([1])], { except: ['week-overview'] })
    expect(await screen.findByText(/left out: “Week \{week\} overview”/)).toBeTruthy()
    await user.click(screen.getByRole('button', { name: 'have them again' }))
    expect(bodies(asked, 'decideConflicts')).toEqual([{ decisions: [], except: [] }])
  })
  it('offers somebody who may only look nothing to decide', async () => {
    open([group([1, 2], { undecided: 1 })], { may: false })
    await screen.findByText(/create 32/)
    expect(screen.queryByRole('checkbox')).toBeNull()
    expect(screen.queryByRole('combobox')).toBeNull()
    expect(screen.queryByRole('button', { name: /^Approve/ })).toBeNull()
  })
})
