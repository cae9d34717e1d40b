import { screen, waitFor } from '@testing-library/react'
import { describe, expect, it, vi } from 'vitest'
import { people } from '../testing/people.testing.ts'
import { show } from '../testing/screen.testing.tsx'
import { Refusal, serve } from '../testing/server.testing.ts'
import { SignIn } from './SignIn.tsx'
import { Welcome } from './Welcome.tsx'

const read = {
  email: 'maud@kestrelsound.example',
  name: 'Maud',
  purpose: 'invitation' as const,
  until: '2026-09-30T12:00:00Z',
}

describe('a one-time link', () => {
  it('takes a password, says how much is missing, and goes on signed in', async () => {
    const asked = serve({ readLink: read, useLink: people.instructor })
    const done = vi.fn()
    const { user, client } = show(<Welcome onDone={done} />, { address: '/welcome#secret' })
    expect(await screen.findByText(/^Welcome, Maud/)).toBeTruthy()
    const password = screen.getByLabelText<HTMLInputElement>('New password')
    await user.type(password, 'a kettle')
    expect(screen.getByText('7 more of at least 15 characters')).toBeTruthy()
    await user.click(screen.getByLabelText('show it'))
    expect(password.type).toBe('text')
    await user.type(password, ' under the pier')
    await user.click(screen.getByRole('button', { name: /Set the password/ }))
    await waitFor(() => expect(done).toHaveBeenCalled())
    expect(client.getQueryData(['me'])).toEqual(people.instructor)
    expect(asked.map(({ body }) => body)).toEqual([
      { token: 'secret' },
      { token: 'secret', password: 'a kettle under the pier' },
    ])
  })
  it('keeps what was typed when the password is refused', async () => {
    serve({
      readLink: { ...read, purpose: 'reset' },
      useLink: () => {
        throw new Refusal(400, 'that password is among the first that are tried')
      },
    })
    const { user } = show(<Welcome onDone={() => undefined} />, { address: '/welcome#secret' })
    expect(await screen.findByText(/choose another password/)).toBeTruthy()
    await user.type(screen.getByLabelText('New password'), 'passwordpassword')
    await user.click(screen.getByRole('button', { name: /Set the password/ }))
    expect((await screen.findByRole('alert')).textContent).toMatch(/first that are tried/)
    expect(screen.getByLabelText<HTMLInputElement>('New password').value).toBe('passwordpassword')
  })
  it('that is over says so, with the way to the sign-in', async () => {
    serve({
      readLink: () => {
        throw new Refusal(410, 'this link was used already')
      },
    })
    show(<Welcome onDone={() => undefined} />, { address: '/welcome#secret' })
    expect((await screen.findByRole('alert')).textContent).toMatch(/used already/)
    expect(screen.getByRole('link', { name: 'To the sign-in' })).toBeTruthy()
  })
})

describe('signing in', () => {
  it('offers the institution’s own sign-in first, and says why it let nobody in', async () => {
    serve({ signInWays: { local: true, outside: 'Kestrel Sound' } })
    show(<SignIn />, { address: '/?outside=no-account' })
    const outside = await screen.findByRole('link', { name: 'Sign in with Kestrel Sound' })
    expect(outside.getAttribute('href')).toBe('/api/sign-in/outside')
    expect(screen.getByRole('alert').textContent).toMatch(
      /^The sign-in of Kestrel Sound knows you, and here nobody has let you in yet/,
    )
    expect(screen.getByLabelText('Password')).toBeTruthy()
  })
  it('asks for no password where none is kept here, and believes no address that says otherwise', async () => {
    serve({ signInWays: { local: false, outside: 'Kestrel Sound' } })
    show(<SignIn />, { address: '/?outside=constructor' })
    expect(await screen.findByRole('link', { name: 'Sign in with Kestrel Sound' })).toBeTruthy()
    expect(screen.queryByLabelText('Password')).toBeNull()
    expect(screen.queryByRole('alert')).toBeNull()
  })
})

describe('somebody without an account', () => {
  it('asks for one from the sign-in, and is told what happens', async () => {
    const asked = serve({ askForAccount: {}, signInWays: { local: true, outside: null } })
    const { user } = show(<SignIn />)
    await user.click(await screen.findByRole('button', { name: 'Ask for one' }))
    await user.type(screen.getByLabelText('Your name'), 'Maud')
    await user.type(screen.getByLabelText(/address at the institution/), 'maud@x.example')
    await user.type(screen.getByLabelText('What you need it for'), 'I teach.')
    await user.click(screen.getByRole('button', { name: 'Ask for an account' }))
    expect((await screen.findByRole('status')).textContent).toMatch(/An administrator reads/)
    expect(asked.at(-1)?.body).toEqual({ name: 'Maud', email: 'maud@x.example', words: 'I teach.' })
    await user.click(screen.getByRole('button', { name: 'Back to the sign-in' }))
    expect(screen.getByLabelText('Password')).toBeTruthy()
  })
})
