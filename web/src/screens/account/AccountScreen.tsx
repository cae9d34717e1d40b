import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState, type ReactNode } from 'react'
import { Link } from 'react-router'
import { themes, type Account, type Me } from '@wickerframe/contract'
import { may, rolesInWords } from '@wickerframe/contract/capabilities'
import { leastPasswordLength } from '@wickerframe/contract/password'
import { call } from '../../api/client.ts'
import { Button, Choice, Field, Moment, Page, Problem, Waiting } from '../../controls/controls.tsx'
import { NewPassword } from '../../controls/NewPassword.tsx'

const Part = ({ title, children }: { title: string; children: ReactNode }) => (
  <section className="mt-6 max-w-2xl border-t border-line pt-3" aria-label={title}>
    <h2 className="text-lg">{title}</h2>
    {children}
  </section>
)

/** Keeps what the server answered of the account, also where its person is named. */
const useAccountChange = () => {
  const client = useQueryClient()
  return useMutation({
    mutationFn: (body: Pick<Account, 'name' | 'preferences'>) => call('changeAccount', { body }),
    onSuccess: (account) => {
      client.setQueryData(['account'], account)
      client.setQueryData(
        ['me'],
        (me: Me | null | undefined) =>
          me && { ...me, name: account.name, theme: account.preferences.theme },
      )
    },
  })
}

const Name = ({ account }: { account: Account }) => {
  const [name, setName] = useState(account.name)
  const change = useAccountChange()
  return (
    <form
      className="mt-2 flex flex-wrap items-end gap-2"
      onSubmit={(event) => {
        event.preventDefault()
        change.mutate({ name, preferences: account.preferences })
      }}
    >
      <Field
        label="What others see"
        className="w-80"
        required
        maxLength={200}
        autoComplete="name"
        value={name}
        onChange={(event) => setName(event.target.value)}
      />
      <Button type="submit" disabled={change.isPending || name.trim() === account.name}>
        Save
      </Button>
      <span role="status" className="text-ink-2">
        {change.isSuccess && 'Saved.'}
      </span>
      <Problem error={change.error} />
    </form>
  )
}

/** What one may be told of. */
const told = [
  { key: 'tellOfRollouts', text: 'Tell me when a rollout that I began has ended' },
  { key: 'tellOfTemplates', text: 'Tell me when others change templates that I look after' },
  { key: 'tellOfCourses', text: 'Tell me when I am given a course or a module' },
] as const

const mailWords = ['never', 'daily', 'at once'] as const
const byMailWords: Readonly<Record<Account['preferences']['byMail'], string>> = {
  never: 'never',
  daily: 'once a day',
  'at once': 'at once',
}

const Preferences = ({ account }: { account: Account }) => {
  const change = useAccountChange()
  const { name, preferences } = account
  return (
    <div className="mt-2 flex flex-col gap-3">
      <div role="group" aria-label="Theme" className="flex flex-wrap items-baseline gap-1.5">
        {themes.map((theme) => (
          <Choice
            key={theme}
            pressed={preferences.theme === theme}
            onClick={() => change.mutate({ name, preferences: { ...preferences, theme } })}
          >
            {theme}
          </Choice>
        ))}
      </div>
      {told.map(({ key, text }) => (
        <label key={key} className="flex items-baseline gap-2">
          <input
            type="checkbox"
            checked={preferences[key]}
            onChange={(event) =>
              change.mutate({ name, preferences: { ...preferences, [key]: event.target.checked } })
            }
          />
          {text}
        </label>
      ))}
      {account.sendsMail && (
        <div role="group" aria-label="By mail" className="flex flex-wrap items-baseline gap-1.5">
          <span className="mr-1">What I did not read here, by mail</span>
          {mailWords.map((byMail) => (
            <Choice
              key={byMail}
              pressed={preferences.byMail === byMail}
              onClick={() => change.mutate({ name, preferences: { ...preferences, byMail } })}
            >
              {byMailWords[byMail]}
            </Choice>
          ))}
        </div>
      )}
      <Problem error={change.error} />
    </div>
  )
}

const Password = () => {
  const [was, setWas] = useState('')
  const [password, setPassword] = useState('')
  const client = useQueryClient()
  const change = useMutation({
    mutationFn: () => call('changePassword', { body: { was, password } }),
    onSuccess: () => {
      setWas('')
      setPassword('')
      void client.invalidateQueries({ queryKey: ['account'] })
    },
  })
  return (
    <form
      className="mt-2 flex max-w-md flex-col gap-3"
      onSubmit={(event) => {
        event.preventDefault()
        change.mutate()
      }}
    >
      <Problem error={change.error} />
      <Field
        label="The password you have now"
        type="password"
        autoComplete="current-password"
        required
        maxLength={200}
        value={was}
        onChange={(event) => setWas(event.target.value)}
      />
      <NewPassword value={password} least={leastPasswordLength} onChange={setPassword} />
      <div className="flex items-center gap-3">
        <Button type="submit" disabled={change.isPending}>
          Change the password
        </Button>
        <span role="status" className="text-ink-2">
          {change.isSuccess && 'Changed. You are signed out everywhere else.'}
        </span>
      </div>
    </form>
  )
}

const Sessions = ({ account }: { account: Account }) => {
  const client = useQueryClient()
  const end = useMutation({
    mutationFn: (session: string) => call('endSession', { at: { session } }),
    onSettled: () => client.invalidateQueries({ queryKey: ['account'] }),
  })
  return (
    <>
      <Problem error={end.error} />
      <ul className="mt-2">
        {account.sessions.map(({ id, beganAt, seenAt, isThis }) => (
          <li
            key={id}
            className="flex flex-wrap items-baseline gap-x-4 border-b border-line py-1.5"
          >
            <span className="whitespace-nowrap">
              began <Moment at={beganAt} />, used <Moment at={seenAt} />
            </span>
            {isThis ? (
              <span className="text-ink-2">this one</span>
            ) : (
              <Button shape="word" disabled={end.isPending} onClick={() => end.mutate(id)}>
                end it
              </Button>
            )}
          </li>
        ))}
      </ul>
    </>
  )
}

/** One's own account: name, password, where one is signed in, and what one is told. */
export const AccountScreen = ({ me }: { me: Me }) => {
  const query = useQuery({ queryKey: ['account'], queryFn: () => call('readAccount') })
  const account = query.data
  return (
    <Page title="Your account">
      {query.isPending && <Waiting what="your account" />}
      <Problem error={query.error} />
      {account && (
        <>
          <p className="text-ink-2">
            {account.email}, {rolesInWords(me.roles)}
            {me.departments.length > 0 && ` (${me.departments.join(', ')})`}.{' '}
            {may(me, 'manage people') ? (
              <Link
                className="underline"
                to={`/people?search=${encodeURIComponent(account.email)}`}
              >
                Change these
              </Link>
            ) : (
              'An administrator changes these.'
            )}
          </p>
          <Part title="Name">
            <Name account={account} />
          </Part>
          <Part title="What you see and are told">
            <Preferences account={account} />
          </Part>
          {account.hasPassword && (
            <Part title="Password">
              <Password />
            </Part>
          )}
          <Part title="Where you are signed in">
            <Sessions account={account} />
          </Part>
          <Part title="What is kept about you">
            <p className="mt-2">
              <a className="text-tide underline" href="/api/account/kept" download>
                Save it as a file
              </a>
              : your account, and every place in which your name stands.
            </p>
          </Part>
        </>
      )}
    </Page>
  )
}
