import { screen, within } from '@testing-library/react'
import { describe, expect, it, vi } from 'vitest'
import { courseItem } from '@wickerframe/core/testing'
import type { CourseCare, Me } from '@wickerframe/contract'
import { checkedExample, noCare } from '../../../testing/checked.testing.ts'
import { people } from '../../../testing/people.testing.ts'
import { show } from '../../../testing/screen.testing.tsx'
import { Refusal, serve } from '../../../testing/server.testing.ts'
import { PairingView } from './PairingView.tsx'

/** Week 2's assignment is gone, and a page of the instructor's own stands there. */
const withStranger = () =>
  checkedExample(({ item, module }) => {
    const week = module('week', 2)
    week.children = week.children.filter(({ id }) => id !== item('assignment', 2).id)
    week.children.push(courseItem('stranger', 'Knots for the brave', { html: '<p>Tie five.</p>' }))
  })

const showPairing = (
  of = withStranger(),
  me: Me = people.designer,
  care: CourseCare = noCare(),
) => {
  const told = { onMend: vi.fn(), onWaive: vi.fn(), onShowPage: vi.fn() }
  const shown = show(
    <PairingView
      template={of.template}
      facts={of.facts}
      course={of.course}
      result={of.result}
      care={care}
      courseId={7}
      me={me}
      {...told}
    />,
    { address: '/courses/7?show=pairing', path: '/courses/:id' },
  )
  const panel = () => within(screen.getByRole('complementary', { name: 'About the pair' }))
  return { ...shown, ...told, panel }
}
const cards = (side: 'left' | 'right' | null = null): HTMLElement[] => [
  ...document.querySelectorAll<HTMLElement>(side ? `[data-side="${side}"]` : '[data-side]'),
]
const card = (side: 'left' | 'right', name: RegExp): HTMLElement => {
  const found = cards(side).find(({ textContent }) => name.test(textContent))
  if (!found) throw new Error(`no card ${String(name)} on the ${side}`)
  return found
}

describe('pairing', () => {
  it('says of a pair what was expected, what was found, and why', async () => {
    const { user, panel } = showPairing()
    await user.click(screen.getByRole('button', { name: 'The whole course' }))
    await user.click(card('left', /overview/i))
    expect(panel().getByText('Expected:')).toBeTruthy()
    expect(panel().getByText(/What deployment made/)).toBeTruthy()
  })
  it('is stepped through by the arrow keys, with one place for the keyboard in all of it', async () => {
    const { user } = showPairing()
    await user.click(screen.getByRole('button', { name: 'The whole course' }))
    expect(cards().filter(({ tabIndex }) => tabIndex === 0)).toHaveLength(1)
    const [first] = cards()
    first?.focus()
    await user.keyboard('{ArrowDown}')
    expect(document.activeElement).not.toBe(first)
    expect(cards().filter(({ tabIndex }) => tabIndex === 0)).toEqual([document.activeElement])
  })
  it('offers a stranger the parts that are missing, the likest first, and sends which it is', async () => {
    const asked = serve({ joinPair: {} })
    const { user, panel } = showPairing()
    await user.click(screen.getByRole('button', { name: 'The whole course' }))
    await user.click(card('right', /Knots for the brave/))
    expect(panel().getByText('Nothing in the template expects it.')).toBeTruthy()
    const choice = panel().getByRole<HTMLSelectElement>('combobox', { name: 'It is really' })
    expect(choice.options.length).toBeGreaterThan(0)
    await user.click(panel().getByRole('button', { name: 'Join' }))
    expect(asked).toMatchObject([
      { route: 'joinPair', body: { what: 'join', expected: choice.value } },
    ])
  })
  it('says what the server refuses, and keeps the pair in sight', async () => {
    serve({
      joinPair: () => {
        throw new Refusal(409, 'Somebody joined it to something else.')
      },
    })
    const { user, panel } = showPairing()
    await user.click(screen.getByRole('button', { name: 'The whole course' }))
    await user.click(card('left', /overview/i))
    await user.click(panel().getByRole('button', { name: 'Not the same: unjoin' }))
    expect(await panel().findByText('Somebody joined it to something else.')).toBeTruthy()
    expect(panel().getByText('Expected:')).toBeTruthy()
  })
  it('lists what was said by hand, and lets it be forgotten', async () => {
    const asked = serve({ joinPair: {} })
    const care = {
      ...noCare(),
      joins: [
        {
          what: 'join' as const,
          expected: 'welcome',
          found: 'page-9',
          by: 'Quill',
          at: '2026-09-01',
        },
      ],
    }
    const { user, panel } = showPairing(checkedExample(), people.designer, care)
    await user.click(panel().getByRole('button', { name: 'forget' }))
    expect(asked).toMatchObject([
      { body: { what: 'forget', expected: 'welcome', found: 'page-9' } },
    ])
  })
  it('shows an instructor the pairs and no button that would be refused', async () => {
    const { user, panel } = showPairing(withStranger(), people.reviewer)
    await user.click(screen.getByRole('button', { name: 'The whole course' }))
    await user.click(card('right', /Knots for the brave/))
    expect(panel().queryByRole('button', { name: 'Join' })).toBeNull()
    expect(panel().queryByRole('button', { name: /Waive/ })).toBeNull()
  })
})
