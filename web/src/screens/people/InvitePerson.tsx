import { useMutation } from '@tanstack/react-query'
import { useState, type FormEvent } from 'react'
import type { OpenLink } from '@wickerframe/contract'
import { call } from '../../api/client.ts'
import { Button, Field, Problem } from '../../controls/controls.tsx'
import { Dialog } from '../../controls/Dialog.tsx'
import { RolesAndDepartments, type Held } from './RolesAndDepartments.tsx'

const nobody: Held = { roles: ['instructor'], departments: [] }

/** Asks for whom an invitation is; what was typed stays when it is refused. */
export const InvitePerson = ({
  open,
  departments,
  onClose,
  onInvited,
}: {
  open: boolean
  departments: readonly string[]
  onClose: () => void
  onInvited: (link: OpenLink) => void
}) => {
  const [email, setEmail] = useState('')
  const [name, setName] = useState('')
  const [held, setHeld] = useState(nobody)
  const invite = useMutation({
    mutationFn: () => call('invitePerson', { body: { email, name, ...held } }),
    onSuccess: (link) => {
      setEmail('')
      setName('')
      setHeld(nobody)
      onInvited(link)
    },
  })
  const submit = (event: FormEvent) => {
    event.preventDefault()
    invite.mutate()
  }
  const close = () => {
    invite.reset()
    onClose()
  }
  return (
    <Dialog
      open={open}
      onClose={close}
      title="Invite somebody"
      explains="They get a link from you, set a password by it, and may then do what you tick here."
    >
      <form className="mt-3" onSubmit={submit}>
        <Problem error={invite.error} />
        <div className="mt-2 grid gap-3 sm:grid-cols-2">
          <Field
            label="Name"
            required
            maxLength={200}
            value={name}
            onChange={(event) => setName(event.target.value)}
          />
          <Field
            label="E-mail"
            type="email"
            required
            maxLength={200}
            value={email}
            onChange={(event) => setEmail(event.target.value)}
          />
        </div>
        <RolesAndDepartments held={held} departments={departments} onChange={setHeld} />
        {held.roles.length === 0 && (
          <p className="mt-2 text-rust">Without a role there is nothing for them to see.</p>
        )}
        <div className="mt-4 flex gap-2">
          <Button shape="main" type="submit" disabled={invite.isPending || held.roles.length === 0}>
            Make the link
          </Button>
          <Button onClick={close}>Not now</Button>
        </div>
      </form>
    </Dialog>
  )
}
