import { useInfiniteQuery } from '@tanstack/react-query'
import { useDeferredValue } from 'react'
import type { AuditEntry } from '@wickerframe/contract'
import { call } from '../../api/client.ts'
import { Button, Field, Moment, Page, Pick, Problem, Waiting } from '../../controls/controls.tsx'
import { useAddress } from '../../shell/useAddress.ts'

const filters = ['who', 'what', 'subject'] as const

const Entry = ({ entry }: { entry: AuditEntry }) => (
  <tr className="border-b border-line align-baseline">
    <td className="py-1.5 pr-4 whitespace-nowrap text-ink-2">
      <Moment at={entry.at} />
    </td>
    <td className="pr-4 break-all">{entry.who}</td>
    <td className="pr-4 font-semibold">{entry.what}</td>
    <td className="pr-4">{entry.subject}</td>
    <td className="text-ink-2">
      {entry.from === null && entry.to === null ? null : (
        <details>
          <summary className="cursor-pointer">what changed</summary>
          {entry.from !== null && (
            <pre className="whitespace-pre-wrap break-all">− {entry.from}</pre>
          )}
          {entry.to !== null && <pre className="whitespace-pre-wrap break-all">+ {entry.to}</pre>}
        </details>
      )}
    </td>
  </tr>
)

/** Who did what, for administrators: newest first, narrowed by person, kind and what it was done to. */
export const AuditScreen = () => {
  const { search: address, set } = useAddress()
  const [who, what, subject] = useDeferredValue(
    filters.map((name) => address.get(name) || undefined),
  )
  const audit = useInfiniteQuery({
    queryKey: ['audit', who, what, subject],
    queryFn: ({ pageParam }) =>
      call('listAudit', { query: { who, what, subject, before: pageParam ?? undefined } }),
    initialPageParam: null as number | null,
    getNextPageParam: (page) => page.before,
    placeholderData: (before) => before,
  })
  const narrow = (name: (typeof filters)[number], value: string) => set({ [name]: value })
  const entries = audit.data?.pages.flatMap((page) => page.entries) ?? []
  const kinds = audit.data?.pages[0]?.kinds ?? []
  return (
    <Page title="Audit">
      <div className="mt-3 flex flex-wrap items-end gap-4" role="search">
        <Field
          label="Who (part of the e-mail address)"
          value={address.get('who') ?? ''}
          onChange={(event) => narrow('who', event.target.value)}
        />
        <Pick
          label="What was done"
          value={address.get('what') ?? ''}
          onChange={(event) => narrow('what', event.target.value)}
          options={[
            { value: '', text: 'anything' },
            ...kinds.map((kind) => ({ value: kind, text: kind })),
          ]}
        />
        <Field
          label="To what"
          placeholder="course 12, harbour …"
          value={address.get('subject') ?? ''}
          onChange={(event) => narrow('subject', event.target.value)}
        />
      </div>
      <div className="mt-4">
        <Problem error={audit.error} />
        {audit.isPending && <Waiting what="the audit" />}
        {audit.data && entries.length === 0 && (
          <p className="py-8 text-ink-2">Nothing of that kind was done. Take a filter away.</p>
        )}
        {entries.length > 0 && (
          <table className="w-full text-left">
            <thead>
              <tr className="border-b border-line-strong text-ink-2">
                {['When', 'Who', 'What', 'To what', ''].map((head) => (
                  <th key={head} scope="col" className="py-1 pr-4 font-normal">
                    {head || <span className="sr-only">Details</span>}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {entries.map((entry) => (
                <Entry key={entry.id} entry={entry} />
              ))}
            </tbody>
          </table>
        )}
        {audit.hasNextPage && (
          <div className="mt-4">
            <Button disabled={audit.isFetchingNextPage} onClick={() => void audit.fetchNextPage()}>
              Show older
            </Button>
          </div>
        )}
      </div>
    </Page>
  )
}
