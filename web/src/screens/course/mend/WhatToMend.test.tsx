import { screen, within } from '@testing-library/react'
import { describe, expect, it, vi } from 'vitest'
import type { CourseCare, Me } from '@wickerframe/contract'
import { checkedExample, noCare } from '../../../testing/checked.testing.ts'
import { people } from '../../../testing/people.testing.ts'
import { show } from '../../../testing/screen.testing.tsx'
import { Refusal, serve } from '../../../testing/server.testing.ts'
import { WhatToMend } from './WhatToMend.tsx'

const twoThings = () =>
  checkedExample(({ item, module }) => {
    module('week', 2).name = 'wk 2'
    item('assignment', 2).dueAt = null
  })

const showMending = (
  {
    me = people.designer,
    care = noCare(),
    of = twoThings(),
  }: { me?: Me; care?: CourseCare; of?: ReturnType<typeof twoThings> },
  address = '/courses/7',
) => {
  const onShowPage = vi.fn()
  const onBegun = vi.fn()
  const shown = show(
    <WhatToMend
      me={me}
      courseId={7}
      course={of.course}
      facts={of.facts}
      template={of.template}
      result={of.result}
      care={care}
      only={null}
      onShowPage={onShowPage}
      onBegun={onBegun}
    />,
    { address, path: '/courses/:id' },
  )
  return { ...shown, onShowPage, onBegun, of }
}
const messages = (): string[] =>
  screen
    .getAllByText(/^Open (must|should)/)
    .map((line) => line.nextElementSibling?.textContent ?? '')

describe('what to mend', () => {
  it('says that nothing is, where every requirement is met', () => {
    showMending({ of: checkedExample() })
    expect(screen.getByText('Nothing to mend: every requirement is met.')).toBeTruthy()
    expect(screen.queryByRole('button', { name: /mend/ })).toBeNull()
  })
  it('tells each finding once, with its evidence and what is expected', async () => {
    const { user } = showMending({})
    expect(messages().some((message) => message.includes('wk 2'))).toBe(true)
    const card = screen.getAllByRole('listitem').find((line) => line.textContent.includes('“wk 2”'))
    if (!card) throw new Error('no finding of the name')
    await user.click(within(card).getByText(/why, and 1 place/))
    expect(within(card).getByText('wk 2', { selector: 'mark' })).toBeTruthy()
    expect(within(card).getByText(/^Expected: /).textContent).toContain('Week 2')
  })
  it('is narrowed to musts, in the address, and says so where nothing is left', async () => {
    const of = checkedExample(({ module }) => void (module('week', 2).name = 'wk 2'))
    const shoulds = of.result.findings.filter(({ strength }) => strength !== 'must')
    const { user, address } = showMending({
      of: { ...of, result: { ...of.result, findings: shoulds } },
    })
    await user.click(screen.getByRole('button', { name: 'only musts' }))
    expect(address()).toBe('/courses/7?strength=must')
    expect(screen.getByText(/^Nothing to mend/)).toBeTruthy()
    await user.click(screen.getByRole('button', { name: 'only musts' }))
    expect(address()).toBe('/courses/7')
  })
  it.each(['move', 'module', 'rule'] as const)('holds the same findings %s', (by) => {
    showMending({})
    const all = messages().sort()
    document.body.replaceChildren()
    showMending({}, `/courses/7?by=${by}`)
    expect(messages().sort()).toEqual(all)
  })
  it('offers a reviewer nothing that would be refused', () => {
    showMending({ me: people.reviewer })
    expect(screen.queryByRole('button', { name: /[Mm]end|Waive|waiver|Raise/ })).toBeNull()
    expect(messages().length).toBeGreaterThan(0)
  })
  it('marks what is new since the check before, and shows only that on demand', async () => {
    const of = twoThings()
    const [fresh] = of.result.findings
    if (!fresh) throw new Error('no finding')
    const care = {
      ...noCare(),
      since: {
        checkedAt: '2026-09-15T12:00:00Z',
        fresh: fresh.places.map(({ fingerprint }) => fingerprint),
        gone: ['The home page was hidden.'],
      },
    }
    const { user } = showMending({ of, care })
    expect(screen.getByText('1 place new, 1 gone.')).toBeTruthy()
    const before = messages().length
    await user.click(screen.getByRole('button', { name: 'only new ones' }))
    expect(messages().length).toBeLessThan(before)
    expect(messages()).toHaveLength(1)
  })
})

describe('a waiver', () => {
  const open = async (me: Me) => {
    const shown = showMending({ me })
    await shown.user.click(screen.getAllByText(/why, and/)[0] as HTMLElement)
    await shown.user.click(
      screen.getAllByRole('button', { name: /^(Waive|Ask for a waiver)$/ })[0] as HTMLElement,
    )
    return shown
  }
  it('needs a reason, and is sent for just this place with its last day', async () => {
    const asked = serve({ askWaiver: {} })
    const { user } = await open(people.designer)
    const give = screen.getByRole('button', { name: 'Give the waiver' })
    expect(give.hasAttribute('disabled')).toBe(true)
    await user.type(screen.getByLabelText('Why it is right as it is'), 'The field trip.')
    await user.type(screen.getByLabelText(/^Until/), '2026-10-01')
    await user.click(give)
    expect(asked).toMatchObject([
      {
        route: 'askWaiver',
        at: { course: '7' },
        body: { scope: 'place', until: '2026-10-01', reason: 'The field trip.' },
      },
    ])
    expect(screen.queryByRole('dialog')).toBeNull()
  })
  it('refused by the server keeps what was typed, and says why', async () => {
    serve({
      askWaiver: () => {
        throw new Refusal(409, 'The course was checked again meanwhile.')
      },
    })
    const { user } = await open(people.instructor)
    await user.type(screen.getByLabelText('Why it is right as it is'), 'We sail that week.')
    await user.click(screen.getByRole('button', { name: 'Ask for it' }))
    expect(await screen.findByText('The course was checked again meanwhile.')).toBeTruthy()
    expect(screen.getByLabelText<HTMLTextAreaElement>('Why it is right as it is').value).toBe(
      'We sail that week.',
    )
  })
})
