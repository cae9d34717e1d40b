import { useQueryClient } from '@tanstack/react-query'
import { useState, type FormEvent } from 'react'
import { call } from '../api/client.ts'
import { Button, Field, Problem } from '../controls/controls.tsx'

export const SignIn = () => {
  const client = useQueryClient()
  const [email, setEmail] = useState('')
  const [password, setPassword] = useState('')
  const [error, setError] = useState<unknown>(null)
  const [busy, setBusy] = useState(false)
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
  return (
    <main id="main" className="mx-auto mt-24 max-w-md border border-line bg-sheet">
      <div className="woven-edge" />
      <form className="flex flex-col gap-4 p-8" onSubmit={(event) => void submit(event)}>
        <h1 className="title flex items-center gap-3">
          <img src="/mark.svg" alt="" width="28" height="28" className="rounded-xs bg-[#fbf8f1]" />{' '}
          Wickerframe
        </h1>
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
        <p className="text-ink-3">In the demo, the sign-ins stand where it was started.</p>
      </form>
    </main>
  )
}
