import { useMutation } from '@tanstack/react-query'
import { useState } from 'react'
import type { OpenLink, PersonEntry } from '@wickerframe/contract'
import { ApiError, call } from '../../api/client.ts'
import { Button, Field, Moment, Problem } from '../../controls/controls.tsx'
import { Dialog } from '../../controls/Dialog.tsx'
import { RolesAndDepartments } from './RolesAndDepartments.tsx'
import { stateWords } from './stateWords.ts'

const sameHeld = (one: PersonEntry, other: PersonEntry): boolean =>
  one.name === other.name &&
  one.roles.toSorted().join() === other.roles.toSorted().join() &&
  one.departments.toSorted().join() === other.departments.toSorted().join()

/**
 * One person: what they are called, what they may do, and what an administrator does about their account. Where another
 * administrator was faster, both states are shown and nothing is overwritten.
 */
export const PersonSlip = ({
  person,
  departments,
  onClose,
  onChanged,
  onLink,
}: {
  person: PersonEntry
  departments: readonly string[]
  onClose: () => void
  onChanged: () => void
  onLink: (link: OpenLink) => void
}) => {
  const [stored, setStored] = useState(person)
  const [wanted, setWanted] = useState(person)
  const [said, setSaid] = useState('')
  const took = (says: string) => (entry: PersonEntry) => {
    setStored(entry)
    setWanted(entry)
    setSaid(says)
    onChanged()
  }
  const at = { person: stored.id }
  const was = stored.revision
  const save = useMutation({
    mutationFn: () => {
      const { name, roles, departments: narrowed } = wanted
      return call('changePerson', { at, body: { was, name, roles, departments: narrowed } })
    },
    onSuccess: took('Saved.'),
  })
  const deactivate = useMutation({
    mutationFn: (deactivated: boolean) =>
      call('deactivatePerson', { at, body: { was, deactivated } }),
    onSuccess: (entry) =>
      took(
        entry.state === 'deactivated'
          ? 'Nobody signs in as them any more; what they wrote stays.'
          : 'They may sign in again.',
      )(entry),
  })
  const signOut = useMutation({
    mutationFn: () => call('signPersonOut', { at }),
    onSuccess: () => setSaid('Signed out on every device.'),
  })
  const link = useMutation({ mutationFn: () => call('linkForPerson', { at }), onSuccess: onLink })
  const takeOut = useMutation({
    mutationFn: () => call('takePersonOut', { at, body: { was } }),
    onSuccess: took('Taken out. What they wrote stays, without their name.'),
  })
  const acts = [save, deactivate, signOut, link, takeOut]
  const error = acts.find((mutation) => mutation.error)?.error
  const clash = error instanceof ApiError ? error.body.clash : undefined
  const busy = acts.some((mutation) => mutation.isPending)
  const [leaving, setLeaving] = useState(false)
  const isDeactivated = stored.state === 'deactivated'
  return (
    <Dialog open onClose={onClose} title={stored.name} explains={stored.email}>
      <p className="mt-2 text-ink-2">
        {stateWords[stored.state].replace(/^./, (first) => first.toUpperCase())}
        {stored.signedInAt !== null && (
          <>
            ; signed in last <Moment at={stored.signedInAt} />
          </>
        )}
        {stored.linkUntil !== null && (
          <>
            ; a link is open until <Moment at={stored.linkUntil} />
          </>
        )}
        .
      </p>
      {stored.mailProblem !== null && (
        <p className="mt-1 border-l-4 border-rust bg-rust-soft px-3 py-1">
          Mail to this address was refused: {stored.mailProblem}
        </p>
      )}
      <div className="mt-2">
        <Problem error={error} />
        {clash && (
          <Button
            shape="word"
            onClick={() => {
              const present = clash.present as PersonEntry
              for (const act of acts) act.reset()
              took('This is how it stands now.')(present)
            }}
          >
            Show how it stands now
          </Button>
        )}
      </div>
      {stored.state === 'left' ? (
        <div className="mt-4 flex items-center gap-2">
          <Button onClick={onClose}>Close</Button>
          <span role="status" className="text-ink-2">
            {said}
          </span>
        </div>
      ) : (
        <>
          <form
            className="mt-2"
            onSubmit={(event) => {
              event.preventDefault()
              setSaid('')
              save.mutate()
            }}
          >
            <Field
              label="Name"
              required
              maxLength={200}
              value={wanted.name}
              onChange={(event) => setWanted({ ...wanted, name: event.target.value })}
            />
            <RolesAndDepartments
              held={wanted}
              departments={departments}
              onChange={({ roles, departments: narrowed }) =>
                setWanted({ ...wanted, roles: [...roles], departments: [...narrowed] })
              }
            />
            <div className="mt-4 flex flex-wrap items-center gap-2">
              <Button shape="main" type="submit" disabled={busy || sameHeld(stored, wanted)}>
                Save
              </Button>
              <Button onClick={onClose}>Close</Button>
              <span role="status" className="text-ink-2">
                {said}
              </span>
            </div>
          </form>
          <div className="mt-5 flex flex-wrap gap-2 border-t border-line pt-4">
            {!isDeactivated && (
              <Button disabled={busy} onClick={() => link.mutate()}>
                {stored.state === 'active' ? 'Link for another password' : 'Link to be let in'}
              </Button>
            )}
            {stored.state === 'active' && (
              <Button disabled={busy} onClick={() => signOut.mutate()}>
                Sign out everywhere
              </Button>
            )}
            <Button disabled={busy} onClick={() => deactivate.mutate(!isDeactivated)}>
              {isDeactivated ? 'Let them sign in again' : 'Deactivate'}
            </Button>
            <Button disabled={busy} onClick={() => setLeaving(!leaving)} aria-expanded={leaving}>
              They have left …
            </Button>
          </div>
          {leaving && (
            <div className="mt-3 border-l-4 border-rust bg-rust-soft px-3 py-2">
              <p>
                Their name and address go from everything for good: in their place stands what they
                were, with a number. Courses, templates and comments stay. This cannot be undone;
                who still stands in the roster comes back with its next import.
              </p>
              <Button className="mt-2" disabled={busy} onClick={() => takeOut.mutate()}>
                Take {stored.name} out for good
              </Button>
            </div>
          )}
          <p className="mt-4 text-ink-2">
            <a className="text-tide underline" href={`/api/people/${stored.id}/kept`} download>
              What is kept about them, as a file
            </a>
          </p>
        </>
      )}
    </Dialog>
  )
}
