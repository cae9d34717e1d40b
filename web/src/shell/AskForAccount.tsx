import { useMutation } from '@tanstack/react-query'
import { useState } from 'react'
import { call } from '../api/client.ts'
import { Button, Field, Problem } from '../controls/controls.tsx'

/** Asks the administrators for an account. The answer does not tell whether there is one already. */
export const AskForAccount = ({ onBack }: { onBack: () => void }) => {
  const [email, setEmail] = useState('')
  const [name, setName] = useState('')
  const [words, setWords] = useState('')
  const ask = useMutation({
    mutationFn: () => call('askForAccount', { body: { email, name, words } }),
  })
  if (ask.isSuccess)
    return (
      <>
        <p role="status">
          An administrator reads what you wrote, and sends you a link if you are let in.
        </p>
        <Button onClick={onBack}>Back to the sign-in</Button>
      </>
    )
  return (
    <form
      className="flex flex-col gap-4"
      onSubmit={(event) => {
        event.preventDefault()
        ask.mutate()
      }}
    >
      <p className="text-ink-2">Ask an administrator to let you in.</p>
      <Problem error={ask.error} />
      <Field
        label="Your name"
        autoComplete="name"
        autoFocus
        required
        maxLength={200}
        value={name}
        onChange={(event) => setName(event.target.value)}
      />
      <Field
        label="Your e-mail address at the institution"
        type="email"
        autoComplete="email"
        required
        maxLength={200}
        value={email}
        onChange={(event) => setEmail(event.target.value)}
      />
      <label className="flex flex-col gap-0.5 text-ink-2">
        <span>What you need it for</span>
        <textarea
          rows={3}
          maxLength={2000}
          className="border border-line-strong bg-sheet px-2 py-1 text-ink"
          value={words}
          onChange={(event) => setWords(event.target.value)}
        />
      </label>
      <div className="flex gap-2">
        <Button shape="main" type="submit" disabled={ask.isPending}>
          Ask for an account
        </Button>
        <Button onClick={onBack}>Back</Button>
      </div>
    </form>
  )
}
