import { screen, waitFor } from '@testing-library/react'
import { describe, expect, it } from 'vitest'
import type { Account, Me } from '@wickerframe/contract'
import { people } from '../../testing/people.testing.ts'
import { show } from '../../testing/screen.testing.tsx'
import { Refusal, serve, type Answers } from '../../testing/server.testing.ts'
import { AccountScreen } from './AccountScreen.tsx'

const account: Account = {
  name: 'Quill designer',
  email: 'designer@kestrelsound.example',
  hasPassword: true,
  preferences: {
    theme: 'as the device',
    tellOfRollouts: true,
    tellOfTemplates: true,
    tellOfCourses: true,
    byMail: 'daily',
  },
  sendsMail: true,
  sessions: [
    {
      id: 'a'.repeat(16),
      beganAt: '2026-09-16T08:00:00Z',
      seenAt: '2026-09-16T09:00:00Z',
      isThis: true,
    },
    {
      id: 'b'.repeat(16),
      beganAt: '2026-09-15T08:00:00Z',
      seenAt: '2026-09-15T09:00:00Z',
      isThis: false,
    },
  ],
}
const showAccount = (answers: Answers = {}, me: Me = people.designer) => {
  const asked = serve({
    readAccount: account,
    changeAccount: ({ body }) => ({ ...account, ...(body as object) }),
    ...answers,
  })
  return { ...show(<AccountScreen me={me} />), asked }
}

describe('one’s own account', () => {
  it('changes the name and the theme, and whoever is signed in is called so', async () => {
    const { user, asked, client } = showAccount()
    client.setQueryData(['me'], people.designer)
    const name = await screen.findByLabelText('What others see')
    await user.clear(name)
    await user.type(name, 'Ingrid')
    await user.click(screen.getByRole('button', { name: 'Save' }))
    await waitFor(() => expect(client.getQueryData<Me>(['me'])).toMatchObject({ name: 'Ingrid' }))
    await user.click(screen.getByRole('button', { name: 'dark' }))
    await waitFor(() =>
      expect(client.getQueryData<Me>(['me'])).toMatchObject({ name: 'Ingrid', theme: 'dark' }),
    )
    expect(asked.at(-1)?.body).toEqual({
      name: 'Ingrid',
      preferences: {
        theme: 'dark',
        tellOfRollouts: true,
        tellOfTemplates: true,
        tellOfCourses: true,
        byMail: 'daily',
      },
    })
  })
  it('says how mail comes, where mail is sent', async () => {
    const { user, asked } = showAccount()
    await user.click(await screen.findByRole('button', { name: 'at once' }))
    await waitFor(() => expect(asked.at(-1)?.body).toHaveProperty('preferences.byMail', 'at once'))
  })
  it('says nothing of mail where none is sent', async () => {
    showAccount({ readAccount: { ...account, sendsMail: false } })
    expect(await screen.findByLabelText('What others see')).toBeTruthy()
    expect(screen.queryByRole('button', { name: 'at once' })).toBe(null)
  })
  it('ends another session, and offers nothing for this one', async () => {
    const { user, asked } = showAccount({ endSession: {} })
    const ends = await screen.findAllByRole('button', { name: 'end it' })
    expect(ends).toHaveLength(1)
    for (const end of ends) await user.click(end)
    await waitFor(() =>
      expect(asked.find(({ route }) => route === 'endSession')?.at).toEqual({
        session: 'b'.repeat(16),
      }),
    )
  })
  it('keeps what was typed when a password is refused', async () => {
    const { user } = showAccount({
      changePassword: () => {
        throw new Refusal(403, 'the password you have now is not that one')
      },
    })
    await user.type(await screen.findByLabelText('The password you have now'), 'guess')
    await user.type(screen.getByLabelText('New password'), 'a kettle under the pier')
    await user.click(screen.getByRole('button', { name: 'Change the password' }))
    expect((await screen.findByRole('alert')).textContent).toMatch(/is not that one/)
    expect(screen.getByLabelText<HTMLInputElement>('New password').value).toBe(
      'a kettle under the pier',
    )
  })
  it('has no password to change where one signs in elsewhere', async () => {
    showAccount({ readAccount: { ...account, hasPassword: false } })
    await screen.findByText('Where you are signed in')
    expect(screen.queryByText('Change the password')).toBeNull()
  })
  it('leads an administrator to where roles are changed, and tells others who does', async () => {
    const { unmount } = showAccount()
    expect(await screen.findByText(/An administrator changes these/)).toBeTruthy()
    unmount()
    showAccount({}, people.administrator)
    expect((await screen.findByRole('link', { name: 'Change these' })).getAttribute('href')).toBe(
      '/people?search=designer%40kestrelsound.example',
    )
  })
})
