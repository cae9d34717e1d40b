import { useState } from 'react'
import type { CourseValuesReport, MadeCourses } from '@wickerframe/contract'
import { send } from '../../api/client.ts'
import { useTemplates } from '../../api/queries.ts'
import { plural } from '../../controls/controls.tsx'
import { FirstOf } from './FirstOf.tsx'
import { TableDialog } from './TableDialog.tsx'

interface Opening {
  open: boolean
  onOpenChange: (open: boolean) => void
}

/** Makes courses on the platform for class sections that have none yet. */
export const MakeCourses = (opening: Opening) => {
  const templates = useTemplates(opening.open)
  const [how, setHow] = useState<'each' | 'shared'>('each')
  const [template, setTemplate] = useState('')
  const blank = 'border-0 border-b-2 border-tide bg-tide-soft px-1 py-0.5 text-ink'
  return (
    <TableDialog<MadeCourses>
      {...opening}
      title="Make courses on the platform"
      act="Make the courses"
      explains="Roster rows without a platform course id get a course of their own there, with their instructors enrolled. Asking twice makes nothing twice."
      header="code, title, term, session, class section, own or shared, instructor e-mail, instructor name, modality, weeks, status"
      choice={`${how} ${template}`}
      ask={(table, query) =>
        send('makeCourses', table, 'text/csv', {
          query: { ...query, how, ...(template === '' ? {} : { template }) },
        })
      }
      ready={(report) => report.made.length > 0}
      outcome={(report) => (
        <>
          <p className="font-semibold">
            {report.dry ? 'This would make' : 'Made'} {plural(report.made.length, 'course')}
            {report.dry ? '' : '; they are in the list, as shells'}.
          </p>
          <FirstOf all={report.made}>
            {({ platformId, name, classSections }) => (
              <>
                {name}{' '}
                <span className="text-ink-3">
                  ({platformId}, class sections {classSections.join(', ')})
                </span>
              </>
            )}
          </FirstOf>
        </>
      )}
    >
      <p className="mt-3 leading-loose">
        Make{' '}
        <select
          aria-label="How courses are shared"
          className={blank}
          value={how}
          onChange={(event) => setHow(event.target.value as 'each' | 'shared')}
        >
          <option value="each">one course for each class section</option>
          <option value="shared">one course that the class sections of a course share</option>
        </select>
        , named{' '}
        <select
          aria-label="Template whose format names them"
          className={blank}
          value={template}
          onChange={(event) => setTemplate(event.target.value)}
        >
          <option value="">by code and title</option>
          {templates.data
            ?.filter(({ versions }) => versions.length > 0)
            .map(({ key, title }) => (
              <option key={key} value={key}>
                as {title} names courses
              </option>
            ))}
        </select>
        .
      </p>
    </TableDialog>
  )
}

/** Topics, rooms, meeting days, units and instructors of courses, so that names and pages come out filled. */
export const CourseValues = (opening: Opening) => (
  <TableDialog<CourseValuesReport>
    {...opening}
    title="Values for courses"
    act="Set the values"
    explains="One row for each course: its platform course id, or code and class section such as NAV 110 03. An empty cell says nothing. The next rollout writes them into names and pages."
    header="course, room, meeting days, instructor e-mail, instructor name, topic 1 …, unit 1 … (weeks it covers, as 1-4)"
    choice=""
    ask={(table, query) => send('setCourseValues', table, 'text/csv', { query })}
    ready={(report) => report.changes.length > 0}
    outcome={(report) => (
      <>
        <p className="font-semibold">
          {report.dry ? 'This would change' : 'Changed'} {plural(report.changes.length, 'value')} in{' '}
          {plural(report.courses, 'course')}.
        </p>
        <FirstOf all={report.changes}>
          {({ course, what, from, to }) => `${course}: ${what} from “${from}” to “${to}”`}
        </FirstOf>
      </>
    )}
  />
)
