import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { leastPasswordLength } from '@wickerframe/contract/password'
import { call } from '../api/client.ts'
import { Button, Moment, Problem, Waiting } from '../controls/controls.tsx'
import { NewPassword } from '../controls/NewPassword.tsx'
import { Doorway } from './Doorway.tsx'

/** Where a one-time link leads: its token stands behind the #, and is sent to nobody but the server. */
export const Welcome = ({ onDone }: { onDone: () => void }) => {
  const client = useQueryClient()
  const [token] = useState(() => window.location.hash.slice(1))
  const [password, setPassword] = useState('')
  const link = useQuery({
    queryKey: ['link', token],
    queryFn: () => call('readLink', { body: { token } }),
    retry: false,
    staleTime: Infinity,
  })
  const take = useMutation({
    mutationFn: () => call('useLink', { body: { token, password } }),
    onSuccess: (me) => {
      client.setQueryData(['me'], me)
      onDone()
    },
  })
  return (
    <Doorway>
      {link.isPending && <Waiting what="the link" />}
      {link.isError && (
        <>
          <Problem error={link.error} />
          <p>
            <a className="underline" href="/">
              To the sign-in
            </a>
          </p>
        </>
      )}
      {link.data && (
        <form
          className="flex flex-col gap-4"
          onSubmit={(event) => {
            event.preventDefault()
            take.mutate()
          }}
        >
          <p>
            {link.data.purpose === 'invitation'
              ? `Welcome, ${link.data.name}. Choose a password; from then on you sign in with it and ${link.data.email}.`
              : `${link.data.name}, choose another password for ${link.data.email}. You are signed out everywhere else with it.`}
          </p>
          <input type="hidden" autoComplete="username" value={link.data.email} readOnly />
          <Problem error={take.error} />
          <NewPassword value={password} least={leastPasswordLength} onChange={setPassword} />
          <Button shape="main" type="submit" disabled={take.isPending}>
            Set the password and go on
          </Button>
          <p className="text-ink-3">
            This link works once, until <Moment at={link.data.until} />.
          </p>
        </form>
      )}
    </Doorway>
  )
}
