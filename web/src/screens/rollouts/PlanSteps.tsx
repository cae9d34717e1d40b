import { formatDate, localDateOf, localTimeOf, type PlanStep } from '@wickerframe/core'

const does = { create: 'create', keep: 'keep', set: 'set' } as const
const local = (instant: string, timeZone: string): string => `${formatDate(localDateOf(instant, timeZone), 'MMM d')}, ${localTimeOf(instant, timeZone)}`

/** What a plan would do to one course, in order: names, places and dates as students will see them. */
export const PlanSteps = ({ steps, timeZone }: { steps: readonly PlanStep[]; timeZone: string }) => (
  <div className="mt-2 max-h-96 overflow-y-auto border border-line bg-sheet" tabIndex={0} role="region" aria-label="Steps of the plan">
    <table className="w-full text-left">
      <thead>
        <tr className="border-b border-line-strong bg-band">
          <th scope="col" className="px-2">What</th><th scope="col" className="px-2">Name</th><th scope="col" className="px-2">Into</th><th scope="col" className="px-2">Opens</th><th scope="col" className="px-2">Due</th><th scope="col" className="px-2">Why</th>
        </tr>
      </thead>
      <tbody>
        {steps.map((step) => (
          <tr key={step.instance} className={`border-b border-line ${step.kind === 'module' ? 'bg-band font-semibold' : ''}`}>
            <td className="px-2 whitespace-nowrap">{does[step.does]} {step.kind}</td>
            <td className="px-2">{step.name}</td>
            <td className="px-2 text-ink-2">{step.into ?? ''}</td>
            <td className="px-2 whitespace-nowrap text-ink-2">{step.opensAt ? local(step.opensAt, timeZone) : ''}</td>
            <td className="px-2 whitespace-nowrap text-ink-2">{step.dueAt ? local(step.dueAt, timeZone) : ''}</td>
            <td className="px-2 text-ink-2">{step.reason}</td>
          </tr>
        ))}
      </tbody>
    </table>
  </div>
)
