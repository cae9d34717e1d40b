import { screen, waitFor, within } from '@testing-library/react'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { AskedOfCourse, CourseDetail } from '@wickerframe/contract'
import { runDetail, runTask } from '../../../testing/answers.testing.ts'
import { askedThing, askingPage } from '../../../testing/asked.testing.ts'
import { people } from '../../../testing/people.testing.ts'
import { show } from '../../../testing/screen.testing.tsx'
import { Refusal, serve } from '../../../testing/server.testing.ts'
import { FillInTab } from './FillInTab.tsx'

type Page = AskedOfCourse['pages'][number]
const homeWith = (...things: Page['things']) => askingPage('Home', things)
const home = () =>
  homeWith(
    askedThing('When can students see you?', { hint: 'Days and a room.' }),
    askedThing('Find me [where].', {
      within: 'Find me [where] on Fridays.',
      pieces: [{ says: '[where]', nth: 0, mayGo: false }],
    }),
    askedThing('Your course plan', { type: 'file' }),
  )
const later = () =>
  askingPage('Week 9', [askedThing('What is week 9 about?')], { week: 9, neededBy: '2027-01-01' })
const open = () => askingPage('Notes', [askedThing('Notes from class', { strength: 'may' })])

const content = 'ab'.repeat(32)
const shown = (
  pages: Page[],
  answer: () => { run: number } = () => ({ run: 5 }),
  address = '/courses/7',
  unread: string[] = [],
) => {
  const sent: unknown[] = []
  const onBegun = vi.fn()
  const asked = { pages, unread, notChecked: null }
  serve({
    askedOfCourse: () => asked,
    putAnswerFile: ({ query }) => {
      const fileName = query['name'] ?? ''
      if (fileName === 'damaged.pdf')
        throw new Refusal(400, '“damaged.pdf” was not put in: it is no PDF')
      return { fileName, content, bytes: 4 }
    },
    answerCourse: ({ body }) => {
      sent.push(body)
      return answer()
    },
    readRun: () =>
      runDetail([runTask(7, { state: 'done', message: '1 written' })], { state: 'done' }),
  })
  const course = { id: 7 } as CourseDetail
  const me = { ...people.instructor, roles: ['instructor' as const] }
  const screenOf = () => <FillInTab course={course} me={me} onBegun={onBegun} />
  return { ...show(screenOf(), { address }), sent, onBegun, asked }
}
const put = () => screen.getByRole('button', { name: /into the course/ })
beforeEach(() => sessionStorage.clear())

describe('filling in a course', () => {
  it('asks what students read now first, then what comes later, and folds what may stay open', async () => {
    shown([later(), home(), open()])
    expect(
      (await screen.findAllByRole('heading', { level: 2 })).map(({ textContent }) => textContent),
    ).toEqual(['Needed now', 'Needed later', 'What may stay open'])
    expect(screen.getByText(/^4 things to say on 2 pages/)).toBeTruthy()
    expect(put()).toHaveProperty('disabled', true)
  })
  it.each([
    [[], /everything that is yours to say is said/, null],
    [
      ['Home'],
      /as far as the pages can be read/,
      /^“Home” cannot be read here, so it is not known what it still asks/,
    ],
    [
      ['A', 'B', 'C', 'D', 'E', 'F'],
      /as far as the pages can be read/,
      /^“A”, “B”, “C”, “D” and 2 more pages cannot be read here, so it is not known what they still ask/,
    ],
  ])(
    'with %j that cannot be read never says that all is said where that is not known',
    async (unread, says, named) => {
      shown([], undefined, undefined, unread)
      expect(await screen.findByText(says)).toBeTruthy()
      if (named) expect(screen.getByText(named)).toBeTruthy()
      else expect(screen.queryByText(/cannot be read/)).toBeNull()
    },
  )
  it('writes all that was typed by one press, and says what became of it', async () => {
    const { user, sent, onBegun } = shown([home()])
    await user.type(
      await screen.findByLabelText('When can students see you?'),
      'Fridays{Enter}at ten',
    )
    await user.type(screen.getByLabelText('[where]'), 'in room 4')
    await user.click(screen.getByRole('button', { name: 'Put 2 answers into the course' }))
    await waitFor(() => expect(onBegun).toHaveBeenCalledWith(5))
    expect(sent).toEqual([
      {
        answers: [
          {
            item: 'Home',
            block: 'block of When can students see you?',
            says: 'When can students see you?',
            nth: 0,
            html: '<p>Fridays</p><p>at ten</p>',
          },
          {
            item: 'Home',
            block: 'block of Find me [where].',
            says: '[where]',
            nth: 0,
            html: '<p>in room 4</p>',
          },
        ],
      },
    ])
    expect(await screen.findByText(/1 written/)).toBeTruthy()
  })
  it('keeps what was typed where it is refused, and where the page is left', async () => {
    const { user, unmount } = shown([home()], () => {
      throw new Refusal(409, 'it cannot be worked out')
    })
    await user.type(await screen.findByLabelText('When can students see you?'), 'Fridays')
    await user.click(put())
    expect((await screen.findByRole('alert')).textContent).toContain('cannot be worked out')
    unmount()
    shown([home()])
    expect(await screen.findByLabelText('When can students see you?')).toHaveProperty(
      'value',
      'Fridays',
    )
  })
  it('brings a file in as it is chosen, and gives it as the answer', async () => {
    const { user, sent } = shown([homeWith(askedThing('Your course plan', { type: 'file' }))])
    const field = await screen.findByLabelText('File for “Your course plan”')
    await user.upload(field, new File([], 'plan.pdf'))
    expect((await screen.findByRole('alert')).textContent).toContain('is empty')
    await user.upload(field, new File(['damaged'], 'damaged.pdf'))
    expect((await screen.findByText(/it is no PDF/)).textContent).toContain('damaged.pdf')
    expect(put()).toHaveProperty('disabled', true)
    await user.upload(field, new File(['%PDF'], 'plan.pdf'))
    expect(await screen.findByText('plan.pdf, 4 bytes')).toBeTruthy()
    await user.click(screen.getByRole('button', { name: 'Put 1 answer into the course' }))
    await waitFor(() => expect(sent).toHaveLength(1))
    expect(sent[0]).toMatchObject({
      answers: [{ says: 'Your course plan', html: '', file: { name: 'plan.pdf', content } }],
    })
  })
  it('takes out what may go', async () => {
    const { user, sent } = shown([
      homeWith(
        askedThing('[note: if you keep one]', {
          within: 'Office hours [note: if you keep one].',
          pieces: [{ says: '[note: if you keep one]', nth: 0, mayGo: true }],
        }),
      ),
    ])
    await user.click(await screen.findByRole('checkbox', { name: /^take out/ }))
    await user.click(put())
    await waitFor(() => expect(sent).toHaveLength(1))
    expect(JSON.stringify(sent)).toContain('"html":""')
  })
  it('takes a picture with what it shows, and sends it beside the answer', async () => {
    const { user, sent } = shown([homeWith(askedThing('A photograph of you', { type: 'image' }))])
    const drawing = new File(['<svg viewBox="0 0 1 1"></svg>'], 'me.svg', { type: 'image/svg+xml' })
    await user.upload(await screen.findByLabelText('Picture for “A photograph of you”'), drawing)
    const field = await screen.findByLabelText(/^What it shows/)
    expect(put()).toHaveProperty('disabled', true)
    await user.type(field, 'Me at the wheel')
    await user.click(screen.getByRole('button', { name: 'Put 1 answer into the course' }))
    await waitFor(() => expect(sent).toHaveLength(1))
    expect(sent[0]).toMatchObject({
      answers: [
        {
          says: 'A photograph of you',
          html: '',
          picture: { fileName: 'me.svg', alternativeText: 'Me at the wheel' },
        },
      ],
    })
  })
  it('goes on at the page that a finding led from', async () => {
    shown([home(), later()], undefined, '/courses/7?show=fill-in&page=Week%209')
    const field = await screen.findByLabelText('What is week 9 about?')
    await waitFor(() => expect(document.activeElement).toBe(field))
  })
  it('says that nothing has to be said any more, or why it is not known', async () => {
    shown([])
    expect(await screen.findByText(/Nothing has to be said any more/)).toBeTruthy()
    expect(screen.queryByRole('button', { name: /into the course/ })).toBeNull()
  })
  it('tells an address from what is none, and waits for it', async () => {
    const { user } = shown([homeWith(askedThing('Your booking page', { type: 'link' }))])
    const field = within(await screen.findByRole('group', { name: 'Your booking page' }))
    await user.type(field.getByLabelText('Address'), 'booking')
    expect(field.getByText(/begins with https/)).toBeTruthy()
    expect(put()).toHaveProperty('disabled', true)
    await user.clear(field.getByLabelText('Address'))
    await user.type(field.getByLabelText('Address'), 'https://book.example/me')
    expect(screen.getByRole('button', { name: 'Put 1 answer into the course' })).toBeTruthy()
  })
})
