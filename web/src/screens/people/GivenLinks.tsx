import { useState } from 'react'
import type { OpenLink } from '@wickerframe/contract'
import { writeTable } from '@wickerframe/interchange/writeTable'
import { Button, Moment, plural } from '../../controls/controls.tsx'
import { Dialog } from '../../controls/Dialog.tsx'
import { download } from '../../controls/download.ts'

const copy = (text: string): Promise<boolean> =>
  navigator.clipboard.writeText(text).then(
    () => true,
    () => false,
  )

/** The one-time links that were just made: they are shown once, to be handed to those they are for. */
export const GivenLinks = ({
  links,
  onClose,
}: {
  links: readonly OpenLink[] | null
  onClose: () => void
}) => {
  const [copied, setCopied] = useState<boolean | null>(null)
  const [only] = links ?? []
  const close = () => {
    setCopied(null)
    onClose()
  }
  if (!links || !only) return null
  const isOne = links.length === 1
  return (
    <Dialog
      open
      onClose={close}
      title={
        isOne ? `A link for ${only.name}` : `Links for ${plural(links.length, 'person', 'people')}`
      }
      explains="Whoever opens a link sets a password and is signed in. It works once, and is shown only now: nobody can read it here again."
    >
      {isOne ? (
        <label className="mt-3 flex flex-col gap-0.5 text-ink-2">
          <span>Send it to {only.email}</span>
          <textarea
            readOnly
            rows={2}
            className="break-all border border-line-strong bg-paper px-2 py-1 font-mono text-[12px] text-ink"
            value={only.link}
            onFocus={(event) => event.target.select()}
          />
        </label>
      ) : (
        <p className="mt-3">
          The file has a line for each: name, e-mail address, link, and until when it works.
        </p>
      )}
      <p className="mt-2 text-ink-2">
        Works until <Moment at={only.until} />.
      </p>
      <div className="mt-4 flex flex-wrap items-center gap-2">
        {isOne ? (
          <Button shape="main" onClick={() => void copy(only.link).then(setCopied)}>
            Copy the link
          </Button>
        ) : (
          <Button
            shape="main"
            onClick={() =>
              download(
                'invitations.csv',
                'text/csv',
                writeTable([
                  ['name', 'email', 'link', 'until'],
                  ...links.map(({ name, email, link, until }) => [name, email, link, until]),
                ]),
              )
            }
          >
            Save the links as CSV
          </Button>
        )}
        <Button onClick={close}>Done</Button>
        <span role="status" className="text-ink-2">
          {copied === true && 'Copied.'}
          {copied === false && 'The browser does not allow that; select the link and copy it.'}
        </span>
      </div>
    </Dialog>
  )
}
