import { Link } from 'react-router'
import { formatDate, instructionalWeeks } from '@wickerframe/core'
import type { Me } from '@wickerframe/contract'
import { may } from '@wickerframe/contract/capabilities'
import { useTerms } from '../../api/queries.ts'
import { Page, plural, Problem, Waiting } from '../../controls/controls.tsx'

export const TermsScreen = ({ me }: { me: Me }) => {
  const terms = useTerms()
  const mayEdit = may(me, 'keep terms')
  return (
    <Page
      title="Terms"
      beside={
        mayEdit && (
          <Link
            to="/terms/new"
            className="rounded-sm border border-tide bg-tide px-3 py-1.5 leading-tight font-semibold text-sheet"
          >
            New term
          </Link>
        )
      }
    >
      <Problem error={terms.error} />
      {terms.isPending && <Waiting what="the terms" />}
      {terms.data?.length === 0 && (
        <p className="py-10 text-ink-2">
          There is no term yet. A term gives weeks their numbers and dates; make one before you
          bring in a roster.
        </p>
      )}
      <ul className="mt-4 divide-y divide-line border-y border-line">
        {terms.data?.map((term) => (
          <li
            key={term.code}
            className="grid grid-cols-[minmax(10rem,1fr)_14rem_8rem_minmax(10rem,1.4fr)] items-baseline gap-4 py-2.5"
          >
            <Link
              className="font-semibold underline decoration-line-strong underline-offset-2"
              to={`/terms/${term.code}`}
            >
              {term.title}
            </Link>
            <span>
              {formatDate(term.firstDay, 'd MMM yyyy')} to {formatDate(term.lastDay, 'd MMM yyyy')}
            </span>
            <span className="text-ink-2">
              {plural(
                instructionalWeeks({ term }).filter((week) => week.number > 0).length,
                'week',
              )}
              {term.firstDay <= me.today && me.today <= term.lastDay ? ', now' : ''}
            </span>
            <span className="truncate text-ink-2">
              {[
                ...term.breaks.map(({ name }) => name),
                ...term.sessions.map((session) => session.title),
              ].join(', ')}
            </span>
          </li>
        ))}
      </ul>
    </Page>
  )
}
