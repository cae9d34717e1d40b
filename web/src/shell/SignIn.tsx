import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState, type FormEvent } from 'react'
import type { OutsideProblem } from '@wickerframe/contract'
import { call } from '../api/client.ts'
import { Button, Field, Problem, Waiting } from '../controls/controls.tsx'
import { AskForAccount } from './AskForAccount.tsx'
import { Doorway } from './Doorway.tsx'

/** What the institution’s own sign-in said when it let nobody in. */
const outsideWords: Readonly<Record<OutsideProblem, string>> = {
  away: 'does not answer just now. Try again in a minute.',
  'wrong-answer':
    'gave an answer that does not hold, so nobody was signed in. Try again; if it stays so, tell an administrator.',
  'refused-there': 'let nobody in: it was broken off there.',
  'no-account': 'knows you, and here nobody has let you in yet. Ask for an account below.',
  deactivated:
    'knows you, and your account here was deactivated. An administrator can tell you why.',
  throttled: 'was tried too often from here. Try again in ten minutes.',
  over: 'took too long, or was begun in another window. Begin again.',
}
const outsideProblem = (): OutsideProblem | null => {
  const said = new URLSearchParams(window.location.search).get('outside') ?? ''
  return Object.hasOwn(outsideWords, said) ? (said as OutsideProblem) : null
}

export const SignIn = () => {
  const ways = useQuery({
    queryKey: ['signInWays'],
    queryFn: () => call('signInWays'),
    staleTime: Infinity,
  })
  const [problem, setProblem] = useState(outsideProblem)
  const client = useQueryClient()
  const [email, setEmail] = useState('')
  const [password, setPassword] = useState('')
  const [error, setError] = useState<unknown>(null)
  const [busy, setBusy] = useState(false)
  const [asking, setAsking] = useState(false)
  const submit = async (event: FormEvent) => {
    event.preventDefault()
    setBusy(true)
    setProblem(null)
    try {
      client.setQueryData(['me'], await call('signIn', { body: { email, password } }))
    } catch (cause) {
      setError(cause)
    } finally {
      setBusy(false)
    }
  }
  if (asking)
    return (
      <Doorway>
        <AskForAccount onBack={() => setAsking(false)} />
      </Doorway>
    )
  if (ways.isPending)
    return (
      <Doorway>
        <Waiting what="how one signs in" />
      </Doorway>
    )
  return (
    <Doorway>
      <form className="flex flex-col gap-4" onSubmit={(event) => void submit(event)}>
        <p className="text-ink-2">
          Course templates, their rollouts, and whether each course keeps to its template.
        </p>
        <Problem
          error={
            error ??
            (problem &&
              `The sign-in of ${ways.data?.outside ?? 'your institution'} ${outsideWords[problem]}`)
          }
        />
        {ways.data?.outside && (
          <a
            className="rounded-sm border border-tide bg-tide px-3 py-1.5 text-center font-semibold leading-tight text-sheet"
            href="/api/sign-in/outside"
          >
            Sign in with {ways.data.outside}
          </a>
        )}
        {ways.data?.local !== false && (
          <>
            <Field
              label="E-mail"
              type="email"
              autoComplete="username"
              required
              value={email}
              onChange={(event) => setEmail(event.target.value)}
            />
            <Field
              label="Password"
              type="password"
              autoComplete="current-password"
              required
              value={password}
              onChange={(event) => setPassword(event.target.value)}
            />
            <Button shape={ways.data?.outside ? 'plain' : 'main'} type="submit" disabled={busy}>
              Sign in
            </Button>
          </>
        )}
        <p className="text-ink-3">
          No account, or the password is lost?{' '}
          <Button shape="word" onClick={() => setAsking(true)}>
            Ask for one
          </Button>
        </p>
      </form>
    </Doorway>
  )
}
