import { useInfiniteQuery, useMutation, useQueryClient } from '@tanstack/react-query'
import { useDeferredValue, useState } from 'react'
import { personStates, type OpenLink, type PersonEntry } from '@wickerframe/contract'
import { roles, rolesInWords } from '@wickerframe/contract/capabilities'
import { call } from '../../api/client.ts'
import {
  Button,
  Choice,
  Field,
  Moment,
  Page,
  Pick,
  plural,
  Problem,
  Waiting,
} from '../../controls/controls.tsx'
import { Menu } from '../../controls/menu.tsx'
import { useAddress } from '../../shell/useAddress.ts'
import { AccountRequests } from './AccountRequests.tsx'
import { GivenLinks } from './GivenLinks.tsx'
import { InvitePerson } from './InvitePerson.tsx'
import { PersonSlip } from './PersonSlip.tsx'
import { stateWords } from './stateWords.ts'

const filters = ['search', 'role', 'state', 'department'] as const

const Row = ({ person, onOpen }: { person: PersonEntry; onOpen: () => void }) => (
  <tr className="border-b border-line align-baseline">
    <td className="py-1 pr-4">
      <Button shape="word" className="py-0! text-left" onClick={onOpen}>
        {person.name}
      </Button>
      {person.state !== 'left' && <span className="ml-2 break-all text-ink-2">{person.email}</span>}
    </td>
    <td className="pr-4">{rolesInWords(person.roles) || 'no role'}</td>
    <td className="pr-4">{person.departments.join(', ')}</td>
    <td className={`pr-4 ${person.state === 'deactivated' ? 'text-ink-3' : ''}`}>
      {stateWords[person.state]}
    </td>
    <td className="whitespace-nowrap text-ink-2">
      {person.signedInAt === null ? 'never' : <Moment at={person.signedInAt} />}
    </td>
  </tr>
)

/** Who may sign in and as what, for administrators. */
export const PeopleScreen = () => {
  const client = useQueryClient()
  const { search: address, set } = useAddress()
  const [opened, setOpened] = useState<PersonEntry | null>(null)
  const [inviting, setInviting] = useState(false)
  const [links, setLinks] = useState<readonly OpenLink[] | null>(null)
  const [said, setSaid] = useState('')
  const asked = useDeferredValue(
    Object.fromEntries(filters.map((name) => [name, address.get(name) || undefined])),
  )
  const query = useInfiniteQuery({
    queryKey: ['people', asked],
    queryFn: ({ pageParam }) =>
      call('listPeople', { query: { ...asked, after: pageParam ?? undefined } }),
    initialPageParam: null as number | null,
    getNextPageParam: (page) => page.after,
    placeholderData: (before) => before,
  })
  const changed = () => {
    void client.invalidateQueries({ queryKey: ['people'] })
    void client.invalidateQueries({ queryKey: ['accountRequests'] })
  }
  const given = (made: readonly OpenLink[]) => {
    setOpened(null)
    setInviting(false)
    setLinks(made)
    changed()
  }
  const inviteKnown = useMutation({
    mutationFn: (again: boolean) => call('inviteKnown', { body: { again } }),
    onSuccess: ({ links: made }) => {
      setSaid(made.length === 0 ? 'Every instructor of the roster was invited already.' : '')
      if (made.length > 0) given(made)
    },
  })
  const narrow = (name: (typeof filters)[number], value: string) => set({ [name]: value })
  const [first] = query.data?.pages ?? []
  const people = query.data?.pages.flatMap((page) => page.people) ?? []
  const state = address.get('state')
  return (
    <Page
      title="People"
      beside={
        <>
          <Menu
            label="Invite instructors"
            groups={[
              {
                items: [
                  { value: 'new', text: 'Those whom the roster names and nobody invited yet' },
                  { value: 'again', text: 'Also those who were invited and never came' },
                ],
              },
            ]}
            onPick={(value) => inviteKnown.mutate(value === 'again')}
          />
          <Button shape="main" onClick={() => setInviting(true)}>
            Invite somebody
          </Button>
        </>
      }
    >
      <Problem error={inviteKnown.error} />
      <p role="status" className="text-ink-2">
        {inviteKnown.isPending ? 'Making the links …' : said}
      </p>
      <AccountRequests
        departments={first?.departments ?? []}
        onAnswered={(link) => (link ? given([link]) : changed())}
      />
      <div className="mt-3 flex flex-wrap items-end gap-x-4 gap-y-2" role="search">
        <Field
          label="Name or e-mail address"
          type="search"
          value={address.get('search') ?? ''}
          onChange={(event) => narrow('search', event.target.value)}
        />
        <Pick
          label="Role"
          value={address.get('role') ?? ''}
          onChange={(event) => narrow('role', event.target.value)}
          options={[
            { value: '', text: 'any' },
            ...roles.map((role) => ({ value: role, text: role })),
          ]}
        />
        <Pick
          label="Department"
          value={address.get('department') ?? ''}
          onChange={(event) => narrow('department', event.target.value)}
          options={[
            { value: '', text: 'any' },
            ...(first?.departments ?? []).map((name) => ({ value: name, text: name })),
          ]}
        />
        <div role="group" aria-label="State" className="flex flex-wrap gap-1.5">
          {personStates.map((each) => (
            <Choice
              key={each}
              pressed={state === each}
              onClick={() => narrow('state', state === each ? '' : each)}
            >
              {stateWords[each]} {first?.counts[each] ?? ''}
            </Choice>
          ))}
        </div>
      </div>
      <div className="mt-4">
        <Problem error={query.error} />
        {query.isPending && <Waiting what="the people" />}
        {first && people.length === 0 && (
          <p className="py-8 text-ink-2">
            Nobody is like that. Take a filter away, or invite somebody.
          </p>
        )}
        {first && people.length > 0 && (
          <table className="w-full text-left">
            <caption className="pb-1 text-left text-ink-2">
              {plural(first.total, 'person', 'people')}
              {people.length < first.total && `, the first ${people.length} by name`}
            </caption>
            <thead>
              <tr className="border-b border-line-strong text-ink-2">
                {['Who', 'Roles', 'Departments', 'State', 'Signed in last'].map((head) => (
                  <th key={head} scope="col" className="py-1 pr-4 font-normal">
                    {head}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {people.map((person) => (
                <Row key={person.id} person={person} onOpen={() => setOpened(person)} />
              ))}
            </tbody>
          </table>
        )}
        {query.hasNextPage && (
          <div className="mt-4">
            <Button disabled={query.isFetchingNextPage} onClick={() => void query.fetchNextPage()}>
              Show more
            </Button>
          </div>
        )}
      </div>
      {opened && (
        <PersonSlip
          key={opened.id}
          person={opened}
          departments={first?.departments ?? []}
          onClose={() => setOpened(null)}
          onChanged={changed}
          onLink={(link) => given([link])}
        />
      )}
      <InvitePerson
        open={inviting}
        departments={first?.departments ?? []}
        onClose={() => setInviting(false)}
        onInvited={(link) => given([link])}
      />
      <GivenLinks links={links} onClose={() => setLinks(null)} />
    </Page>
  )
}
