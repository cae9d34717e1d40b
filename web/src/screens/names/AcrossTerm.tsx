import { renderName } from '@wickerframe/core'
import { Pick } from '../../controls/controls.tsx'
import type { NamesBench } from './useNamesBench.ts'

/** The format written out for every place of a course, as the term goes on. */
export const AcrossTerm = ({
  bench: { parsed, context, courses, courseId, chooseCourse },
}: {
  bench: NamesBench
}) => (
  <section>
    <h2 className="text-[18px]">Across the term</h2>
    <Pick
      label="In the course"
      className="mt-1"
      value={courseId}
      onChange={(event) => chooseCourse(event.target.value)}
      options={courses.map(({ id, code, title, weeks }) => ({
        value: String(id),
        text: `${code} ${title} (${weeks} weeks)`,
      }))}
    />
    <ol className="mt-2 border-t border-line" aria-label="The format written out">
      {parsed.ok &&
        context?.places.map((values, i) => {
          const { text, unfilled } = renderName(parsed.value, values)
          return (
            <li key={i} className="truncate border-b border-line py-[3px]" title={text}>
              {text}
              {unfilled.length > 0 && (
                <span className="sr-only">, {unfilled.join(', ')} not filled</span>
              )}
            </li>
          )
        })}
      {!parsed.ok && (
        <li className="py-2 text-ink-2">As soon as the format is right, it is written out here.</li>
      )}
    </ol>
  </section>
)
