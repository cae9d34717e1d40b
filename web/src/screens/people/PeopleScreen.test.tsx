import { screen, waitFor, within } from '@testing-library/react'
import { describe, expect, it } from 'vitest'
import type { OpenLink, PeoplePage, PersonEntry } from '@wickerframe/contract'
import { show } from '../../testing/screen.testing.tsx'
import { Refusal, serve, type Answers } from '../../testing/server.testing.ts'
import { PeopleScreen } from './PeopleScreen.tsx'

const entry = (id: number, name: string, more: Partial<PersonEntry> = {}): PersonEntry => ({
  id,
  email: `${name.toLowerCase()}@kestrelsound.example`,
  name,
  roles: ['instructor'],
  departments: [],
  state: 'active',
  signedInAt: '2026-09-14T08:40:00Z',
  mailProblem: null,
  linkUntil: null,
  revision: 3,
  ...more,
})
const pageOf = (people: PersonEntry[], more: Partial<PeoplePage> = {}): PeoplePage => ({
  people,
  total: people.length,
  counts: { known: 2, invited: 0, active: 1, deactivated: 0, left: 0 },
  departments: ['GAL', 'NAV'],
  after: null,
  ...more,
})
const link: OpenLink = {
  email: 'maud@kestrelsound.example',
  name: 'Maud',
  link: 'https://wickerframe.example/welcome#secret',
  until: '2026-09-30T12:00:00Z',
}
const showPeople = (answers: Answers = {}, address = '/people') => {
  const asked = serve({
    listPeople: pageOf([entry(1, 'Ingrid', { roles: ['designer'] }), entry(2, 'Olin')]),
    listAccountRequests: [],
    ...answers,
  })
  return { ...show(<PeopleScreen />, { address }), asked }
}

describe('the people', () => {
  it('are narrowed by what stands in the address, and the address by what is chosen', async () => {
    const { user, asked, address } = showPeople({}, '/people?role=designer')
    await screen.findByRole('table')
    await user.click(screen.getByRole('button', { name: 'known, not invited 2' }))
    await user.type(screen.getByLabelText('Name or e-mail address'), 'ol')
    await waitFor(() =>
      expect(asked.findLast(({ route }) => route === 'listPeople')?.query).toEqual({
        role: 'designer',
        state: 'known',
        search: 'ol',
      }),
    )
    expect(address()).toBe('/people?role=designer&state=known&search=ol')
  })
  it('come page by page', async () => {
    const { user } = showPeople({
      listPeople: ({ query }) =>
        query['after'] === '2'
          ? pageOf([entry(3, 'Zora')], { total: 3 })
          : pageOf([entry(1, 'Ingrid'), entry(2, 'Olin')], { total: 3, after: 2 }),
    })
    expect(await screen.findByText('3 people, the first 2 by name')).toBeTruthy()
    await user.click(screen.getByRole('button', { name: 'Show more' }))
    expect(await screen.findByRole('button', { name: 'Zora' })).toBeTruthy()
    expect(screen.queryByRole('button', { name: 'Show more' })).toBeNull()
  })
  it('of whom none fits say what to do', async () => {
    showPeople({ listPeople: pageOf([]) })
    expect(await screen.findByText(/Nobody is like that/)).toBeTruthy()
  })
})

describe('one of them', () => {
  const open = async (answers: Answers = {}) => {
    const shown = showPeople(answers)
    await shown.user.click(await screen.findByRole('button', { name: 'Ingrid' }))
    return { ...shown, dialog: within(await screen.findByRole('dialog')) }
  }
  const saved = (asked: readonly { route: string; body: unknown }[]) =>
    asked.filter(({ route }) => route === 'changePerson').map(({ body }) => body)

  it('gets another role and a department, on the state that was looked at', async () => {
    const { user, asked, dialog } = await open({
      changePerson: entry(1, 'Ingrid', {
        roles: ['designer', 'instructor'],
        departments: ['NAV'],
        revision: 4,
      }),
    })
    const save = dialog.getByRole<HTMLButtonElement>('button', { name: 'Save' })
    expect(save.disabled).toBe(true)
    await user.click(dialog.getByRole('checkbox', { name: /^instructor/ }))
    await user.click(dialog.getByRole('checkbox', { name: 'NAV' }))
    await user.click(save)
    expect(await dialog.findByText('Saved.')).toBeTruthy()
    expect(saved(asked)).toEqual([
      { was: 3, name: 'Ingrid', roles: ['designer', 'instructor'], departments: ['NAV'] },
    ])
    expect(save.disabled).toBe(true)
  })
  it('whom another administrator changed meanwhile is shown as they are now, when asked for', async () => {
    const present = entry(1, 'Ingrid O.', { roles: ['reviewer'], revision: 9 })
    const { user, dialog } = await open({
      changePerson: () => {
        throw new Refusal(409, 'Ingrid was changed by another administrator meanwhile', {
          clash: { code: 'clash', where: '/people/1', present, wanted: {} },
        })
      },
    })
    await user.type(dialog.getByLabelText('Name'), ' Okafor')
    await user.click(dialog.getByRole('button', { name: 'Save' }))
    expect((await dialog.findByRole('alert')).textContent).toMatch(/another administrator/)
    expect(dialog.getByLabelText<HTMLInputElement>('Name').value).toBe('Ingrid Okafor')
    await user.click(dialog.getByRole('button', { name: 'Show how it stands now' }))
    expect(dialog.getByLabelText<HTMLInputElement>('Name').value).toBe('Ingrid O.')
    expect(dialog.queryByRole('alert')).toBeNull()
  })
  it('is refused with its reason where they are the last administrator', async () => {
    const { user, dialog } = await open({
      deactivatePerson: () => {
        throw new Refusal(409, 'this is the last administrator who can sign in')
      },
    })
    await user.click(dialog.getByRole('button', { name: 'Deactivate' }))
    expect((await dialog.findByRole('alert')).textContent).toMatch(/last administrator/)
  })
  it('who has left is taken out in two steps, after being told what that means', async () => {
    const { user, asked, dialog } = await open({
      takePersonOut: entry(1, 'a former designer (1)', { state: 'left', revision: 4 }),
    })
    const leave = () => asked.filter(({ route }) => route === 'takePersonOut')
    await user.click(dialog.getByRole('button', { name: /^They have left/ }))
    expect(dialog.getByText(/This cannot be undone/)).toBeTruthy()
    expect(leave()).toEqual([])
    await user.click(dialog.getByRole('button', { name: 'Take Ingrid out for good' }))
    expect(await dialog.findByText(/^Taken out/)).toBeTruthy()
    expect(leave().map(({ body }) => body)).toEqual([{ was: 3 }])
    expect(dialog.queryByRole('button', { name: 'Deactivate' })).toBeNull()
  })
  it('gets a link that is shown once', async () => {
    const { user, dialog } = await open({ linkForPerson: link })
    await user.click(dialog.getByRole('button', { name: 'Link for another password' }))
    const shown = within(await screen.findByRole('dialog', { name: 'A link for Maud' }))
    expect(shown.getByLabelText<HTMLTextAreaElement>(/^Send it/).value).toBe(link.link)
    await user.click(shown.getByRole('button', { name: 'Done' }))
    expect(screen.queryByText(/secret/)).toBeNull()
  })
})

describe('inviting', () => {
  it('keeps what was typed when it is refused', async () => {
    const { user } = showPeople({
      invitePerson: () => {
        throw new Refusal(409, 'maud@kestrelsound.example is Maud, who has an account')
      },
    })
    await user.click(await screen.findByRole('button', { name: 'Invite somebody' }))
    const dialog = within(await screen.findByRole('dialog'))
    await user.type(dialog.getByLabelText('Name'), 'Maud')
    await user.type(dialog.getByLabelText('E-mail'), 'maud@kestrelsound.example')
    await user.click(dialog.getByRole('button', { name: 'Make the link' }))
    expect((await dialog.findByRole('alert')).textContent).toMatch(/has an account/)
    expect(dialog.getByLabelText<HTMLInputElement>('Name').value).toBe('Maud')
  })
  it('asks for a role', async () => {
    const { user } = showPeople()
    await user.click(await screen.findByRole('button', { name: 'Invite somebody' }))
    const dialog = within(await screen.findByRole('dialog'))
    await user.click(dialog.getByRole('checkbox', { name: /^instructor/ }))
    expect(dialog.getByText(/Without a role/)).toBeTruthy()
    expect(dialog.getByRole<HTMLButtonElement>('button', { name: 'Make the link' }).disabled).toBe(
      true,
    )
  })
  it('of all instructors gives a file, or says that there is nobody left', async () => {
    let links = [link, { ...link, name: 'Olin' }]
    const { user } = showPeople({ inviteKnown: () => ({ links }) })
    const invite = async (which: RegExp) => {
      await user.click(await screen.findByRole('button', { name: /^Invite instructors/ }))
      await user.click(await screen.findByRole('menuitem', { name: which }))
    }
    await invite(/nobody invited yet/)
    const dialog = within(await screen.findByRole('dialog', { name: 'Links for 2 people' }))
    expect(dialog.getByRole('button', { name: 'Save the links as CSV' })).toBeTruthy()
    await user.click(dialog.getByRole('button', { name: 'Done' }))
    links = []
    await invite(/nobody invited yet/)
    expect(await screen.findByText(/was invited already/)).toBeTruthy()
  })
})

describe('somebody who asked for an account', () => {
  const request = {
    id: 5,
    email: 'maud@kestrelsound.example',
    name: 'Maud',
    words: 'I teach NAV 110.',
    askedAt: '2026-09-15T10:00:00Z',
  }
  it('is let in with a link, or refused with a reason', async () => {
    const answered: unknown[] = []
    const { user } = showPeople({
      listAccountRequests: [request],
      answerAccountRequest: ({ body }) => {
        answered.push(body)
        return { link: answered.length === 1 ? null : link }
      },
    })
    await user.click(await screen.findByText('Maud'))
    const refuse = screen.getByRole<HTMLButtonElement>('button', { name: 'Refuse' })
    expect(refuse.disabled).toBe(true)
    await user.type(screen.getByLabelText('Or the reason why not'), 'Unknown')
    await user.click(refuse)
    await waitFor(() => expect(answered).toEqual([{ answer: 'refuse', why: 'Unknown' }]))
    await user.click(screen.getByRole('button', { name: 'Let them in' }))
    expect(await screen.findByRole('dialog', { name: 'A link for Maud' })).toBeTruthy()
    expect(answered[1]).toEqual({ answer: 'let in', roles: ['instructor'], departments: [] })
  })
})
