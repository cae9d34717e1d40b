import { useQueryClient } from '@tanstack/react-query'
import { Dialog } from 'radix-ui'
import { useRef, useState } from 'react'
import type { Progress, RosterReport } from '@wickerframe/contract'
import { ApiError, sendWatched } from '../../api/client.ts'
import { Button, plural, Problem } from '../../controls/controls.tsx'
import { FileErrors } from './FileErrors.tsx'
import { FirstOf } from './FirstOf.tsx'

/** So many changes of a file the server tells one by one. */
const mostChangesTold = 2000

const header =
  'code, title, term, session, class section, own or shared, instructor e-mail, instructor name, modality, weeks, platform course id, status'

const HowFar = ({ progress: { doing, done, of } }: { progress: Progress }) => (
  <p className="flex items-center gap-3 text-ink-2">
    <progress className="w-48" {...(of > 0 ? { value: done, max: of } : {})} />
    {doing}
    {of > 0 ? `: ${done} of ${of}` : ' …'}
  </p>
)

/** Choose a file, see what it would change or where it is wrong, then import it. */
export const RosterImport = ({
  open,
  onOpenChange,
}: {
  open: boolean
  onOpenChange: (open: boolean) => void
}) => {
  const client = useQueryClient()
  const [file, setFile] = useState<File | null>(null)
  const [report, setReport] = useState<RosterReport | null>(null)
  const [error, setError] = useState<unknown>(null)
  const [progress, setProgress] = useState<Progress | null>(null)
  const latest = useRef(0)
  const send = async (chosen: File, dry: boolean) => {
    // Of two files that are chosen one after the other, the preview of the first does not stand beside the second; what was
    // taken is always told.
    const mine = ++latest.current
    const tell = (act: () => void) => {
      if (!dry || mine === latest.current) act()
    }
    const ask = (query: { dry?: '1'; shown?: string }) =>
      sendWatched(
        'importRoster',
        chosen,
        'text/csv',
        (progress) => tell(() => setProgress(progress)),
        { query },
      )
    setError(null)
    setProgress({ doing: 'sending the file', done: 0, of: 0 })
    try {
      const told = await ask(dry ? { dry: '1' } : { shown: report?.digest ?? '' })
      tell(() => setReport(told))
      if (!dry) await client.invalidateQueries()
    } catch (cause) {
      const changed = cause instanceof ApiError && cause.body.type.endsWith(':changed')
      const now = changed ? await ask({ dry: '1' }).catch(() => null) : null
      tell(() => {
        setError(cause)
        setReport(now)
      })
    } finally {
      tell(() => setProgress(null))
    }
  }
  const choose = (chosen: File | undefined) => {
    setFile(chosen ?? null)
    setReport(null)
    if (chosen) void send(chosen, true)
  }
  return (
    <Dialog.Root open={open} onOpenChange={onOpenChange}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 bg-ink/30" />
        <Dialog.Content className="fixed left-1/2 top-16 max-h-[80vh] w-[46rem] max-w-[95vw] -translate-x-1/2 overflow-y-auto border border-line-strong bg-sheet p-6">
          <Dialog.Title className="text-xl">Import a roster file</Dialog.Title>
          <Dialog.Description className="mt-1 text-ink-2">
            A table file (CSV; comma, semicolon or tab), one line for each class section. Lines with
            the same platform course id are one course. The header has these columns, in any order:
          </Dialog.Description>
          <p className="mt-2 border border-line bg-paper p-2 font-mono text-[12px]">{header}</p>
          <label className="mt-4 flex flex-col gap-1 text-ink-2">
            <span>Roster file</span>
            <input
              type="file"
              accept=".csv,text/csv"
              onChange={(event) => choose(event.target.files?.[0])}
            />
          </label>
          <div className="mt-4" role="status">
            <Problem error={error} />
            {progress && <HowFar progress={progress} />}
            {report && report.errors.length > 0 && <FileErrors errors={report.errors} />}
            {report && report.note !== '' && <p className="text-rust">{report.note}</p>}
            {report && report.errors.length === 0 && (
              <>
                <p className="font-semibold">
                  {report.dry ? 'The file would add' : 'Imported: added'}{' '}
                  {plural(report.added, 'course')}, {report.dry ? 'change' : 'changed'}{' '}
                  {report.changed}, and {report.dry ? 'leave' : 'left'} {report.unchanged} as they
                  are.
                </p>
                <FirstOf all={report.changes}>
                  {({ course, field, from, to, line }) =>
                    `${course}: ${field} from “${from}” to “${to}” (line ${line})`
                  }
                </FirstOf>
                {report.changes.length === mostChangesTold && (
                  <p className="text-ink-2">
                    These are the first {mostChangesTold}; all of them are taken.
                  </p>
                )}
                {report.absent.length > 0 && (
                  <>
                    <p className="mt-2 font-semibold text-rust">
                      {plural(report.absent.length, 'course')} of the file{' '}
                      {report.absent.length === 1 ? 'is' : 'are'} not on the platform, and{' '}
                      {report.absent.length === 1 ? 'is' : 'are'} left out:
                    </p>
                    <FirstOf all={report.absent}>
                      {({ line, course, platformId }) =>
                        `${course}: the platform has no course ${platformId} (line ${line})`
                      }
                    </FirstOf>
                  </>
                )}
                {report.kept.length > 0 && (
                  <>
                    <p className="mt-2 font-semibold">
                      {plural(report.kept.length, 'thing')} decided here{' '}
                      {report.kept.length === 1 ? 'stays' : 'stay'}, whatever the file says:
                    </p>
                    <FirstOf all={report.kept}>
                      {({ line, course, field, here, by, file: says }) =>
                        `${course}: ${field} “${here}”, decided by ${by}; the file says “${says}” (line ${line})`
                      }
                    </FirstOf>
                  </>
                )}
              </>
            )}
          </div>
          <div className="mt-6 flex justify-end gap-2">
            <Dialog.Close asChild>
              <Button>Close</Button>
            </Dialog.Close>
            <Button
              shape="main"
              disabled={
                !file ||
                progress !== null ||
                !report?.dry ||
                report.errors.length > 0 ||
                report.added + report.changed === 0
              }
              onClick={() => file && void send(file, false)}
            >
              Import
            </Button>
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  )
}
