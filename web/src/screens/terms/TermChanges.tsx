import { formatDate } from '@wickerframe/core'
import type { TermChange, TermPreview } from '@wickerframe/contract'
import { plural } from '../../controls/controls.tsx'

const day = (date: string | null): string =>
  date === null ? 'no date' : formatDate(date, 'EEE d MMM')

const courseWords = ({ courses }: TermChange): string => {
  const shown = courses
    .slice(0, 4)
    .map((course) => course.code)
    .join(', ')
  return courses.length > 4 ? `${shown} and ${courses.length - 4} more` : shown
}

/** What saving an edited term would change, told once for all courses it changes alike. */
export const TermChanges = ({ preview }: { preview: TermPreview }) => {
  if (preview.courses === 0)
    return (
      <p className="text-ink-2">No course is in this term yet, so nothing changes elsewhere.</p>
    )
  if (preview.changes.length === 0)
    return (
      <p className="text-ink-2">
        Nothing changes in the {plural(preview.courses, 'course')} of the term.
      </p>
    )
  return (
    <>
      <p>
        {plural(preview.courses - preview.unchanged, 'course')} of {preview.courses} would expect
        other names or dates. What is deployed stays as it is until a check or a rollout.
      </p>
      <ul className="mt-2 grid gap-3">
        {preview.changes.map((change) => (
          <li key={change.courses[0]?.id} className="border border-line bg-sheet p-3">
            <h3 className="text-[15px]">
              {plural(change.courses.length, 'course')}: {courseWords(change)}
            </h3>
            {change.problem ? (
              <p className="text-rust">It does not fit: {change.problem}.</p>
            ) : (
              <>
                {change.weeks.after !== null && change.weeks.after !== change.weeks.before && (
                  <p>
                    {plural(change.weeks.after, 'week')} instead of {change.weeks.before}.
                  </p>
                )}
                <div className="mt-1 grid gap-x-6 md:grid-cols-2">
                  {change.names.length > 0 && (
                    <ul aria-label="Names">
                      {change.names.map(({ from, to }) => (
                        <li key={from}>
                          <span className="text-ink-3 line-through decoration-line-strong">
                            {from}
                          </span>
                          <br />
                          {to}
                        </li>
                      ))}
                    </ul>
                  )}
                  {change.dates.length > 0 && (
                    <ul aria-label="Dates">
                      {change.dates.map((date) => (
                        <li key={`${date.what} ${date.name} ${date.from}`}>
                          {date.name}: {date.what}{' '}
                          <span className="text-ink-3 line-through decoration-line-strong">
                            {day(date.from)}
                          </span>{' '}
                          {day(date.to)}
                        </li>
                      ))}
                    </ul>
                  )}
                </div>
                {change.names.length + change.dates.length === 0 && (
                  <p className="text-ink-2">Its weeks lie on other days.</p>
                )}
                {change.more > 0 && (
                  <p className="mt-1 text-ink-2">and {change.more} more of the same.</p>
                )}
              </>
            )}
          </li>
        ))}
      </ul>
    </>
  )
}
