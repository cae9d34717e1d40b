import { useQueryClient } from '@tanstack/react-query'
import { Dialog } from 'radix-ui'
import { useRef, useState, type ReactNode } from 'react'
import { ApiError } from '../../api/client.ts'
import { Button, Problem } from '../../controls/controls.tsx'
import { FileErrors } from './FileErrors.tsx'

interface Report {
  dry: boolean
  digest: string
  note: string
  errors: { line: number; column: string; found: string; reason: string }[]
}

/** A table that is pasted or chosen as a file: what it would do is shown while it is looked at, then it is taken. */
export const TableDialog = <R extends Report>({
  open,
  onOpenChange,
  title,
  explains,
  header,
  ask,
  choice,
  ready,
  act,
  children,
  outcome,
}: {
  open: boolean
  onOpenChange: (open: boolean) => void
  title: string
  explains: string
  header: string
  /** Sends the table; `dry` asks only what it would do. */
  ask: (table: File | string, query: { dry?: '1'; shown?: string }) => Promise<R>
  /** What the preview is of besides the table: a preview of another choice is no preview of this one. */
  choice: string
  /** Whether the report has anything to take. */
  ready: (report: R) => boolean
  act: string
  children?: ReactNode
  outcome: (report: R) => ReactNode
}) => {
  const client = useQueryClient()
  const [text, setText] = useState('')
  const [file, setFile] = useState<File | null>(null)
  const [told, setTold] = useState<{ of: string; report: R } | null>(null)
  const [error, setError] = useState<unknown>(null)
  const [asking, setAsking] = useState(false)
  const latest = useRef(0)
  const report = told?.of === choice ? told.report : null
  const send = async (dry: boolean) => {
    // Who types on while a preview is under way is not told of what stood there before; what was taken is always told.
    const mine = latest.current
    const tell = (act: () => void) => {
      if (!dry || mine === latest.current) act()
    }
    const table = file ?? text
    setError(null)
    setAsking(true)
    try {
      const answer = await ask(table, dry ? { dry: '1' } : { shown: report?.digest ?? '' })
      tell(() => setTold({ of: choice, report: answer }))
      if (!dry) await client.invalidateQueries()
    } catch (cause) {
      // What was shown is not true any more: the new preview takes its place.
      const changed = cause instanceof ApiError && cause.body.type.endsWith(':changed')
      const now = changed ? await ask(table, { dry: '1' }).catch(() => null) : null
      tell(() => {
        setError(cause)
        setTold(now && { of: choice, report: now })
      })
    } finally {
      setAsking(false)
    }
  }
  const take = (nextText: string, nextFile: File | null) => {
    latest.current += 1
    setText(nextText)
    setFile(nextFile)
    setTold(null)
    setError(null)
  }
  return (
    <Dialog.Root open={open} onOpenChange={onOpenChange}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 bg-ink/30" />
        <Dialog.Content className="fixed left-1/2 top-12 max-h-[86vh] w-[52rem] max-w-[95vw] -translate-x-1/2 overflow-y-auto border border-line-strong bg-sheet p-6">
          <Dialog.Title className="text-xl">{title}</Dialog.Title>
          <Dialog.Description className="mt-1 text-ink-2">{explains}</Dialog.Description>
          <p className="mt-2 border border-line bg-paper p-2 font-mono text-[12px]">{header}</p>
          {children}
          <label className="mt-3 flex flex-col gap-1 text-ink-2">
            <span>The table, pasted from a spreadsheet or typed as CSV</span>
            <textarea
              className="h-36 border border-line-strong bg-paper p-2 font-mono text-[12.5px] text-ink"
              value={text}
              onChange={(event) => take(event.target.value, null)}
              spellCheck={false}
            />
          </label>
          <label className="mt-2 flex items-center gap-2 text-ink-2">
            <span>or a file</span>
            <input
              type="file"
              accept=".csv,.tsv,.txt,text/csv"
              onChange={(event) => take(text, event.target.files?.[0] ?? null)}
            />
          </label>
          <div className="mt-3" role="status">
            <Problem error={error} />
            {report && report.note !== '' && <p className="text-rust">{report.note}</p>}
            {report &&
              (report.errors.length > 0 ? <FileErrors errors={report.errors} /> : outcome(report))}
          </div>
          <div className="mt-5 flex justify-end gap-2">
            <Dialog.Close asChild>
              <Button>Close</Button>
            </Dialog.Close>
            <Button
              shape={report?.dry ? 'plain' : 'main'}
              disabled={asking || (text.trim() === '' && !file)}
              onClick={() => void send(true)}
            >
              See what it would do
            </Button>
            <Button
              shape="main"
              disabled={asking || !report?.dry || report.errors.length > 0 || !ready(report)}
              onClick={() => void send(false)}
            >
              {act}
            </Button>
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  )
}
