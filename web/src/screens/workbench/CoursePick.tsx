import type { CourseSummary } from '@wickerframe/contract'
import { Pick } from '../../controls/controls.tsx'
import { tellApart } from '../../controls/tellApart.ts'

/** For which of the courses that a template is meant for it is worked out. */
export const CoursePick = ({
  fitting,
  course,
  onChoose,
}: {
  fitting: readonly CourseSummary[]
  course: string
  onChoose: (course: string) => void
}) => {
  const apart = tellApart(fitting)
  return (
    <Pick
      inline
      label="Worked out for"
      className="[&>select]:max-w-64"
      value={course}
      onChange={(event) => onChoose(event.target.value)}
      options={[
        ...(fitting.length === 0 ? [{ value: '', text: 'no course fits' }] : []),
        ...fitting.map(({ id, code, title, platformId, weeks }) => ({
          value: String(id),
          text: `${code} ${title}, ${apart.get(platformId)} (${weeks} weeks)`,
        })),
      ]}
    />
  )
}
