import { screen, within } from '@testing-library/react'
import { describe, expect, it } from 'vitest'
import type { WaiverLine, WaiverQueue } from '@wickerframe/contract'
import { people } from '../../testing/people.testing.ts'
import { show } from '../../testing/screen.testing.tsx'
import { Refusal, serve, type Answers } from '../../testing/server.testing.ts'
import { WaiversScreen } from './WaiversScreen.tsx'

const waiver = (id: string, more: Partial<WaiverLine> = {}): WaiverLine => ({
  id,
  scope: 'place',
  rule: 'must-part-hidden',
  part: 'quiz',
  week: 3,
  fingerprint: 'f',
  evidence: null,
  from: '2026-09-01',
  until: null,
  carried: false,
  reason: `Reason ${id}`,
  state: 'approved',
  askedBy: 'pilar@kestrelsound.example',
  askedAt: '2026-09-10T09:00:00Z',
  decidedBy: null,
  answer: '',
  title: 'Musts can be seen',
  asks: 'Pilar Hjort',
  course: {
    id: 7,
    platformId: 'p7',
    code: 'NAV 110',
    title: 'Coastal Navigation',
    classSections: ['01'],
  },
  reach: { department: null, template: null, term: null, listed: false, courses: 1 },
  mayDecide: true,
  ...more,
})
const wide = (id: string, more: Partial<WaiverLine> = {}): WaiverLine =>
  waiver(id, {
    scope: 'rule',
    part: null,
    week: null,
    course: null,
    reach: {
      department: 'GAL',
      template: 'Harbour Standard',
      term: 'Autumn 2026',
      listed: false,
      courses: 12,
    },
    ...more,
  })
const queue = (more: Partial<WaiverQueue> = {}): WaiverQueue => ({
  choices: {
    rules: [{ id: 'must-part-hidden', title: 'Musts can be seen' }],
    templates: [
      { key: 'harbour', title: 'Harbour Standard', parts: [{ key: 'quiz', name: 'Quiz {week}' }] },
    ],
    departments: ['GAL', 'NAV'],
    terms: [{ code: 'autumn-2026', title: 'Autumn 2026' }],
  },
  asked: [],
  inForce: [],
  past: [],
  ...more,
})
const showQueue = (view: WaiverQueue, more: Answers = {}, me = people.designer) => {
  const asked = serve({ listWaivers: view, ...more })
  return { ...show(<WaiversScreen me={me} />), asked }
}
const lineOf = async (reason: string): Promise<HTMLElement> => {
  const line = (await screen.findByText(new RegExp(`“${reason}”`))).closest('li')
  if (!line) throw new Error(`no line with ${reason}`)
  return line
}

describe('waivers', () => {
  it('says what one is, where there is none', async () => {
    showQueue(queue())
    expect(await screen.findByText('Nobody asks for one.')).toBeTruthy()
    expect(screen.getByText(/a dated exception with its reason/)).toBeTruthy()
  })
  it('tells what each excuses, where, why and until when', async () => {
    showQueue(
      queue({
        inForce: [
          waiver('one', { until: '2026-10-10' }),
          wide('two', { from: '2026-12-01', carried: true }),
          wide('three', { scope: 'part', part: 'quiz', title: '' }),
        ],
      }),
    )
    const one = await lineOf('Reason one')
    expect(one.textContent).toContain('Musts can be seen, at “Quiz {week}” in week 3')
    expect(one.textContent).toContain('until 2026-10-10')
    const two = await lineOf('Reason two')
    expect(two.textContent).toContain('12 courses, of GAL, under Harbour Standard, in Autumn 2026')
    expect(two.textContent).toContain('from 2026-12-01, without end, goes on in the next term')
    expect((await lineOf('Reason three')).textContent).toContain(
      'Whatever is wrong, at “Quiz {week}” wherever it stands',
    )
  })
  it('gives or refuses what was asked for, with a word', async () => {
    const { asked, user } = showQueue(queue({ asked: [waiver('4', { state: 'asked' })] }), {
      decideWaiver: {},
    })
    const line = within(await lineOf('Reason 4'))
    await user.type(
      line.getByLabelText('A word with the answer to Pilar Hjort'),
      'Show it by Friday',
    )
    await user.click(line.getByRole('button', { name: 'refuse' }))
    await user.click(line.getByRole('button', { name: 'give it' }))
    const sent = asked.filter(({ route }) => route === 'decideWaiver')
    expect(sent.map(({ at, body }) => [at, body])).toEqual([
      [
        { course: '7', waiver: '4' },
        { decision: 'refuse', answer: 'Show it by Friday' },
      ],
      [
        { course: '7', waiver: '4' },
        { decision: 'approve', answer: 'Show it by Friday' },
      ],
    ])
  })
  it('keeps the word that was typed where the answer is refused, and says why', async () => {
    const { user } = showQueue(queue({ asked: [waiver('4', { state: 'asked' })] }), {
      decideWaiver: () => {
        throw new Refusal(409, 'the waiver is withdrawn already')
      },
    })
    const line = within(await lineOf('Reason 4'))
    const word = line.getByLabelText<HTMLInputElement>(/A word with/)
    await user.type(word, 'Well')
    await user.click(line.getByRole('button', { name: 'give it' }))
    expect(await screen.findByText(/withdrawn already/)).toBeTruthy()
    expect(word.value).toBe('Well')
  })
  it('withdraws one of a course and one for many where each is decided', async () => {
    const { asked, user } = showQueue(queue({ inForce: [waiver('5'), wide('6')] }), {
      decideWaiver: {},
      withdrawWideWaiver: { courses: 12, run: 3 },
    })
    for (const id of ['5', '6'])
      await user.click(
        within(await lineOf(`Reason ${id}`)).getByRole('button', { name: 'withdraw' }),
      )
    expect(
      asked.filter(({ route }) => route !== 'listWaivers').map(({ route, at }) => [route, at]),
    ).toEqual([
      ['decideWaiver', { course: '7', waiver: '5' }],
      ['withdrawWideWaiver', { waiver: '6' }],
    ])
  })
  it('lets nobody decide who may not', async () => {
    showQueue(
      queue({
        asked: [waiver('4', { state: 'asked', mayDecide: false })],
        inForce: [wide('6', { mayDecide: false })],
      }),
      {},
      people.reviewer,
    )
    expect((await lineOf('Reason 4')).textContent).toContain('waits for a designer')
    expect(screen.queryByRole('button')).toBeNull()
  })
  it('tells of those that are past what became of them', async () => {
    const { user } = showQueue(
      queue({ past: [waiver('7', { state: 'refused', answer: 'Show it' }), waiver('8')] }),
    )
    await user.click(await screen.findByText('Past (2)'))
    expect((await lineOf('Reason 7')).textContent).toContain('refused: “Show it”')
    expect((await lineOf('Reason 8')).textContent).toContain('ended')
  })
})

describe('a waiver for many courses', () => {
  const open = async (more: Answers = {}) => {
    const shown = showQueue(queue(), more)
    await shown.user.click(await screen.findByRole('button', { name: /Waive in many courses/ }))
    const dialog = within(await screen.findByRole('dialog'))
    return { ...shown, dialog }
  }
  it('is given for a rule where all that was chosen is true, and says whom it reaches', async () => {
    const { asked, dialog, user } = await open({ giveWideWaiver: { courses: 3, run: 9 } })
    const press = dialog.getByRole<HTMLButtonElement>('button', { name: 'Give the waiver' })
    expect(press.disabled).toBe(true)
    await user.selectOptions(dialog.getByLabelText('The rule'), 'Musts can be seen')
    await user.selectOptions(dialog.getByLabelText('In courses of'), 'GAL')
    await user.type(dialog.getByLabelText('Why it is right so'), 'The galley is at sea')
    await user.click(dialog.getByLabelText('It goes on in the next term'))
    await user.click(press)
    expect(await screen.findByText(/3 courses are being checked again/)).toBeTruthy()
    expect(asked.find(({ route }) => route === 'giveWideWaiver')?.body).toMatchObject({
      rule: 'must-part-hidden',
      department: 'GAL',
      term: null,
      template: null,
      part: null,
      until: null,
      carried: true,
      reason: 'The galley is at sea',
    })
  })
  it('is given for whatever is wrong at a part of a template', async () => {
    const { asked, dialog, user } = await open({ giveWideWaiver: { courses: 0, run: null } })
    await user.selectOptions(dialog.getByLabelText('Under the template'), 'Harbour Standard')
    await user.selectOptions(dialog.getByLabelText('At the part'), 'Quiz {week}')
    await user.type(dialog.getByLabelText('Why it is right so'), 'No quizzes this term')
    await user.click(dialog.getByRole('button', { name: 'Give the waiver' }))
    expect(await screen.findByText(/It reaches no course yet/)).toBeTruthy()
    expect(asked.find(({ route }) => route === 'giveWideWaiver')?.body).toMatchObject({
      rule: null,
      template: 'harbour',
      part: 'quiz',
    })
  })
})
