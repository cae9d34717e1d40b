import type { MendAction } from '@wickerframe/core'
import { plural } from '../../controls/controls.tsx'

const effort = (minutes: number): string =>
  minutes < 90 ? `about ${minutes} min` : `about ${Math.round(minutes / 60)} h`

/** The few actions that bring the most courses to ready. */
export const MendFirst = ({ actions }: { actions: readonly MendAction[] }) =>
  actions.length === 0 ? (
    <p className="text-ink-2">No open musts.</p>
  ) : (
    <ol className="divide-y divide-line">
      {actions.map((action) => (
        <li key={action.rule + action.example} className="py-2">
          <div className="flex justify-between gap-3">
            <p className="font-semibold">{action.title}</p>
            {action.becomeReady > 0 && (
              <p
                className="whitespace-nowrap font-serif text-[17px] text-tide"
                title="courses that become ready"
              >
                +{action.becomeReady}
              </p>
            )}
          </div>
          <p className="line-clamp-2 text-ink-2">{action.example}</p>
          <p className="text-ink-3">
            {plural(action.courses.length, 'course')} ·{' '}
            {action.mender === 'instructor' ? 'instructors' : 'we can do it'} ·{' '}
            {effort(action.effortMinutes)}
            {action.becomeReady > 0
              ? ` · ${plural(action.becomeReady, 'becomes', 'become')} ready`
              : ''}
          </p>
        </li>
      ))}
    </ol>
  )
