import { screen } from '@testing-library/react'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { keepAnswers, keptAnswers } from '../screens/course/fillIn/keptAnswers.ts'
import { keepSteps, stepsKept } from '../screens/workbench/keptSteps.ts'
import { people } from '../testing/people.testing.ts'
import { show } from '../testing/screen.testing.tsx'
import { Refusal, serve } from '../testing/server.testing.ts'
import { Shell } from './Shell.tsx'
import { signOut } from './signOut.ts'

const step = { edits: [], inverse: [], at: 0 }
const kept = () => [stepsKept('fair-winds', 4).done.length, Object.keys(keptAnswers(7))]

describe('signing out', () => {
  beforeEach(() => {
    keepSteps('fair-winds', 4, { done: [step], undone: [] })
    keepAnswers(7, { place: { as: 'lines', text: 'typed' } })
    expect(kept()).toEqual([1, ['place']])
  })
  it.each([
    ['on all devices', {}],
    [
      'also of a session that ended by itself',
      () => {
        throw new Refusal(401, 'nobody is signed in')
      },
    ],
  ])('leaves nothing in the tab for who comes next, %s', async (_, answer) => {
    const asked = serve({ signOut: answer })
    const leave = vi.fn()
    expect(await signOut(true, leave)).toBeNull()
    expect([leave.mock.calls.length, kept()]).toEqual([1, [0, []]])
    expect(asked.map(({ body }) => body)).toEqual([{ everywhere: true }])
  })
  it('that did not come to pass is said, and keeps what was typed', async () => {
    serve({
      listTerms: [],
      signOut: () => {
        throw new Refusal(500, 'The database cannot be reached.')
      },
    })
    const { user } = show(<Shell me={people.designer} />)
    await user.click(screen.getByRole('button', { name: /sign out and more/ }))
    await user.click(await screen.findByText('Sign out on this device'))
    expect((await screen.findByRole('alert')).textContent).toBe(
      'You are still signed in. The database cannot be reached.',
    )
    expect(kept()).toEqual([1, ['place']])
  })
})
