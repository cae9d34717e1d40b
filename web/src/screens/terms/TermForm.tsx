import type { ReactNode } from 'react'
import { isPlainDate, weekdays, type Problem, type Term } from '@wickerframe/core'
import { Button, Field, Pick } from '../../controls/controls.tsx'
import { DateField } from '../../controls/date/DateField.tsx'

interface Editing {
  term: Term
  problems: readonly Problem[]
  mayEdit: boolean
  today: string
  change: (fields: Partial<Term>) => void
}

/** What is wrong at a path of the term, beside its field. */
const At = ({ path, problems }: { path: string; problems: readonly Problem[] }) => {
  const problem = problems.find((problem) => problem.path === path)
  return problem ? (
    <p role="alert" className="text-rust">
      {problem.found === '""' ? '' : `${problem.found}: `}expected {problem.expected}
    </p>
  ) : null
}

/** What is no day says so itself. */
const saysItself = (text: string | undefined): boolean => !!text && !isPlainDate(text)

type Row = Record<string, string>

/** Rows of names and dates: breaks, holidays, other dates, sessions. */
const Rows = <R extends Row>({
  title,
  path,
  rows,
  fields,
  fresh,
  editing,
  onRows,
  children,
}: {
  title: string
  path: string
  rows: readonly R[]
  fields: readonly { key: keyof R & string; label: string; type: 'text' | 'date' }[]
  fresh: R
  editing: Editing
  onRows: (rows: R[]) => void
  children?: ReactNode
}) => {
  const put = (i: number, key: keyof R, said: string) =>
    onRows(rows.map((row, j) => (j === i ? { ...row, [key]: said } : row)))
  return (
    <fieldset disabled={!editing.mayEdit} className="border-t border-line pt-2">
      <legend className="pr-2 font-serif text-[15px]">{title}</legend>
      <ul>
        {rows.map((row, i) => (
          <li key={i} className="mb-1">
            <div className="flex flex-wrap items-end gap-x-2 gap-y-1">
              {fields.map(({ key, label, type }) =>
                type === 'date' ? (
                  <DateField
                    key={key}
                    label={label}
                    isLabelSeen={i === 0}
                    isSmall
                    value={row[key] ?? ''}
                    near={
                      isPlainDate(editing.term.firstDay) ? editing.term.firstDay : editing.today
                    }
                    onPick={(day) => put(i, key, day)}
                  />
                ) : (
                  <label
                    key={key}
                    className="flex min-w-[6rem] flex-1 flex-col text-[12px] text-ink-2"
                  >
                    <span className={i === 0 ? '' : 'sr-only'}>{label}</span>
                    <input
                      className="border border-line-strong bg-sheet px-1.5 py-0.5 text-[13px] text-ink"
                      value={row[key]}
                      onChange={(event) => put(i, key, event.target.value)}
                    />
                  </label>
                ),
              )}
              <Button
                shape="word"
                aria-label={`Remove ${row['name'] ?? row['title'] ?? title}`}
                onClick={() => onRows(rows.filter((_, j) => j !== i))}
              >
                remove
              </Button>
            </div>
            {editing.problems
              .filter(
                (problem) =>
                  (problem.path === `/${path}/${i}` || problem.path.startsWith(`/${path}/${i}/`)) &&
                  !fields.some(
                    ({ key, type }) =>
                      type === 'date' &&
                      problem.path === `/${path}/${i}/${key}` &&
                      saysItself(row[key]),
                  ),
              )
              .slice(0, 1)
              .map((problem) => (
                <p key={problem.path} role="alert" className="text-rust">
                  expected {problem.expected}
                </p>
              ))}
          </li>
        ))}
      </ul>
      <div className="flex flex-wrap gap-4">
        {editing.mayEdit && (
          <Button shape="word" onClick={() => onRows([...rows, fresh])}>
            add
          </Button>
        )}
        {children}
      </div>
    </fieldset>
  )
}

/** A term as fields; what is typed is kept, and told where it is not right yet. */
export const TermForm = ({
  isNew,
  importing,
  ...editing
}: Editing & { isNew: boolean; importing: ReactNode }) => {
  const { term, problems, mayEdit, today, change } = editing
  const day = { key: 'date', label: 'Day', type: 'date' } as const
  const name = { key: 'name', label: 'Name', type: 'text' } as const
  return (
    <div className="grid content-start gap-3">
      <fieldset disabled={!mayEdit} className="grid grid-cols-2 gap-x-3 gap-y-2">
        <legend className="sr-only">The term</legend>
        <div>
          <Field
            label="Title"
            value={term.title}
            onChange={(event) => change({ title: event.target.value })}
          />
          <At path="/title" problems={problems} />
        </div>
        <div>
          <Field
            label="Code"
            value={term.code}
            disabled={!isNew}
            onChange={(event) => change({ code: event.target.value })}
          />
          <At path="/code" problems={problems} />
        </div>
        <div>
          <DateField
            label="Opening day"
            className="w-full"
            value={term.firstDay}
            near={today}
            onPick={(firstDay) => change({ firstDay })}
          />
          {!saysItself(term.firstDay) && <At path="/firstDay" problems={problems} />}
        </div>
        <div>
          <DateField
            label="Last day of class"
            className="w-full"
            value={term.lastDay}
            near={isPlainDate(term.firstDay) ? term.firstDay : today}
            onPick={(lastDay) => change({ lastDay })}
          />
          {!saysItself(term.lastDay) && <At path="/lastDay" problems={problems} />}
        </div>
        <div>
          <Field
            label="Time zone"
            value={term.timeZone}
            onChange={(event) => change({ timeZone: event.target.value })}
            list="zones"
          />
          <At path="/timeZone" problems={problems} />
        </div>
        <Pick
          label="Weeks start on"
          value={term.weekStartsOn}
          onChange={(event) => change({ weekStartsOn: event.target.value as Term['weekStartsOn'] })}
          options={weekdays.map((weekday) => ({
            value: weekday,
            text: weekday.slice(0, 1).toUpperCase() + weekday.slice(1),
          }))}
        />
        <Pick
          label="A short first week"
          value={term.shortFirstWeek}
          onChange={(event) =>
            change({ shortFirstWeek: event.target.value as Term['shortFirstWeek'] })
          }
          options={[
            { value: 'counts', text: 'counts as week 1' },
            { value: 'joins-next', text: 'joins the next' },
            { value: 'is-week-0', text: 'is week 0' },
          ]}
        />
        <Pick
          label="A short last week"
          value={term.shortLastWeek}
          onChange={(event) =>
            change({ shortLastWeek: event.target.value as Term['shortLastWeek'] })
          }
          options={[
            { value: 'counts', text: 'counts' },
            { value: 'joins-previous', text: 'joins the one before' },
          ]}
        />
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            className="size-[20px] accent-tide"
            checked={term.breakWeeksCount}
            onChange={(event) => change({ breakWeeksCount: event.target.checked })}
          />
          A break week has a number
        </label>
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            className="size-[20px] accent-tide"
            checked={term.preparatoryWeek}
            onChange={(event) => change({ preparatoryWeek: event.target.checked })}
          />
          A week 0 to prepare in
        </label>
        <datalist id="zones">
          {[
            'America/Halifax',
            'America/St_Johns',
            'America/Toronto',
            'America/Vancouver',
            'Australia/Sydney',
            'Europe/Lisbon',
            'UTC',
          ].map((zone) => (
            <option key={zone} value={zone} />
          ))}
        </datalist>
      </fieldset>
      <Rows
        title="Breaks"
        path="breaks"
        rows={term.breaks}
        editing={editing}
        onRows={(breaks) => change({ breaks })}
        fresh={{ name: 'Break', first: term.firstDay, last: term.firstDay }}
        fields={[
          name,
          { key: 'first', label: 'First day', type: 'date' },
          { key: 'last', label: 'Last day', type: 'date' },
        ]}
      />
      <Rows
        title="Holidays"
        path="holidays"
        rows={term.holidays}
        editing={editing}
        onRows={(holidays) => change({ holidays })}
        fresh={{ name: 'Holiday', date: term.firstDay }}
        fields={[name, day]}
      >
        {importing}
      </Rows>
      <Rows
        title="Other dates"
        path="otherDates"
        rows={term.otherDates}
        editing={editing}
        onRows={(otherDates) => change({ otherDates })}
        fresh={{ name: 'Exam week begins', date: term.lastDay }}
        fields={[name, day]}
      />
      <Rows
        title="Sessions, for shorter courses"
        path="sessions"
        rows={term.sessions}
        editing={editing}
        onRows={(sessions) => change({ sessions })}
        fresh={{
          code: `session-${term.sessions.length + 1}`,
          title: 'Session',
          firstDay: term.firstDay,
          lastDay: term.lastDay,
        }}
        fields={[
          { key: 'title', label: 'Title', type: 'text' },
          { key: 'code', label: 'Code', type: 'text' },
          { key: 'firstDay', label: 'First day', type: 'date' },
          { key: 'lastDay', label: 'Last day', type: 'date' },
        ]}
      />
    </div>
  )
}
