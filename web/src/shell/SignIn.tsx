import { useQueryClient } from '@tanstack/react-query'
import { useState, type FormEvent } from 'react'
import { call } from '../api/client.ts'
import { Button, Field, Problem } from '../controls/controls.tsx'
import { AskForAccount } from './AskForAccount.tsx'
import { Doorway } from './Doorway.tsx'

export const SignIn = () => {
  const client = useQueryClient()
  const [email, setEmail] = useState('')
  const [password, setPassword] = useState('')
  const [error, setError] = useState<unknown>(null)
  const [busy, setBusy] = useState(false)
  const [asking, setAsking] = useState(false)
  const submit = async (event: FormEvent) => {
    event.preventDefault()
    setBusy(true)
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
  return (
    <Doorway>
      <form className="flex flex-col gap-4" onSubmit={(event) => void submit(event)}>
        <p className="text-ink-2">
          Course templates, their rollouts, and whether each course keeps to its template.
        </p>
        <Problem error={error} />
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
        <Button shape="main" type="submit" disabled={busy}>
          Sign in
        </Button>
        <p className="text-ink-3">
          No account, or the password is lost?{' '}
          <Button shape="word" onClick={() => setAsking(true)}>
            Ask for one
          </Button>
        </p>
        <p className="text-ink-3">In the demo, the sign-ins stand where it was started.</p>
      </form>
    </Doorway>
  )
}
