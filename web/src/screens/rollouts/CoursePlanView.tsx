import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { blockWords, type Decision, type FieldStep, type PlanStep } from '@wickerframe/core'
import { call } from '../../api/client.ts'
import { Button, Moment, plural, Problem, Waiting } from '../../controls/controls.tsx'
import { consequenceWords, doesWords, fieldWords, localWords, valueWords } from './planWords.ts'
import { HtmlDifference, TextDifference, wordsOfHtml } from './TextDifference.tsx'

export type Decide = (instance: string, field: string, decision: Decision | null) => void

const decisionLabels: Record<Decision, string> = {
  keep: 'keep the instructor’s',
  take: 'take the template’s',
  both: 'have both',
}

const FieldView = ({
  step,
  field,
  timeZone,
  decide,
}: {
  step: PlanStep
  field: FieldStep
  timeZone: string
  decide: Decide | null
}) => {
  const isBlock = field.field.startsWith('block:') || field.field === 'page'
  const isText = isBlock || field.field.startsWith('question:')
  const html = (value: unknown) => (typeof value === 'string' ? value : '')
  const difference = (before: unknown, after: unknown) =>
    isText ? (
      <HtmlDifference before={html(before)} after={html(after)} />
    ) : (
      <TextDifference before={valueWords(before, timeZone)} after={valueWords(after, timeZone)} />
    )
  const open = field.does === 'conflict'
  // What was pressed shows at once, until the plan comes back with it.
  const [pressed, setPressed] = useState<{ over: Decision | null; decision: Decision } | null>(null)
  const shown = pressed && pressed.over === field.decided ? pressed.decision : field.decided
  return (
    <div
      className={`mt-1 border-l-2 pl-3 ${open && field.decided === null ? 'border-rust' : 'border-line'}`}
    >
      <p className="text-ink-2">
        <strong className="text-ink">{fieldWords(field.field, blockWords(field))}</strong>:{' '}
        {field.reason}
        {field.decided && <> — decided: {decisionLabels[field.decided]}</>}
      </p>
      {open ? (
        <div className="grid gap-3 md:grid-cols-2">
          <div>
            <p className="text-[12.5px] text-ink-3">in the course now</p>
            {difference(field.base, field.present)}
          </div>
          <div>
            <p className="text-[12.5px] text-ink-3">in the template now</p>
            {difference(field.base, field.wanted)}
          </div>
        </div>
      ) : field.does === 'change' || field.does === 'restore' ? (
        difference(field.present, field.result)
      ) : (
        <p className="max-w-[72ch] whitespace-pre-line text-ink-2">
          {isText ? wordsOfHtml(html(field.present)) : valueWords(field.present, timeZone)}
        </p>
      )}
      {open && decide && (
        <fieldset className="mt-1 flex flex-wrap gap-4">
          <legend className="sr-only">
            What to do about {fieldWords(field.field, blockWords(field))} of {step.name}
          </legend>
          {(['keep', 'take', ...(isBlock ? (['both'] as const) : [])] as const).map((decision) => (
            <label key={decision} className="flex items-center gap-1.5">
              <input
                type="radio"
                className="size-[18px] accent-tide"
                name={`${step.instance}/${field.field}`}
                checked={shown === decision}
                onChange={() => {
                  setPressed({ over: field.decided, decision })
                  decide(step.instance, field.field, decision)
                }}
              />
              {decisionLabels[decision]}
            </label>
          ))}
        </fieldset>
      )}
    </div>
  )
}

const order: readonly PlanStep['does'][] = [
  'conflict',
  'change',
  'move',
  'remove',
  'create',
  'set',
  'adopt',
  'keep',
]

/** The plan of one course, opened down to the words that change. */
export const CoursePlanView = ({
  run,
  course,
  decide,
}: {
  run: number
  course: number
  decide: Decide | null
}) => {
  const plan = useQuery({
    queryKey: ['run', run, 'plan', course],
    queryFn: () => call('coursePlan', { at: { run, course } }),
  })
  const [shown, setShown] = useState<PlanStep['does'] | null>(null)
  if (plan.isPending) return <Waiting what="the plan" />
  if (!plan.data) return <Problem error={plan.error} />
  const { steps, timeZone, unchanged, consequences } = plan.data
  const present = order.filter((does) => steps.some((step) => step.does === does))
  const open = shown !== null && present.includes(shown) ? shown : (present[0] ?? null)
  return (
    <div
      className="mt-2 border border-line bg-sheet p-3"
      role="region"
      aria-label={`Plan for ${plan.data.code} ${plan.data.title}`}
    >
      <p className="text-ink-2">
        {plan.data.readAt && (
          <>
            Read <Moment at={plan.data.readAt} />.{' '}
          </>
        )}
        {plural(unchanged, 'part')} {unchanged === 1 ? 'stays as it is' : 'stay as they are'}.
      </p>
      {consequences.length > 0 && (
        <ul className="mt-1 list-disc pl-5">
          {consequences.map((consequence) => (
            <li key={consequence.code}>
              {consequenceWords(consequence)}.
              {consequence.all.length > 1 && (
                <details className="inline-block align-top">
                  <summary className="ml-2 cursor-pointer text-tide underline underline-offset-2">
                    all of them
                  </summary>
                  <ul className="list-disc pl-5">
                    {consequence.all.map((each) => (
                      <li key={each}>{each}</li>
                    ))}
                  </ul>
                </details>
              )}
            </li>
          ))}
        </ul>
      )}
      <div className="mt-2 flex flex-wrap gap-4" role="group" aria-label="Which steps are shown">
        {present.map((does) => (
          <Button
            key={does}
            shape="word"
            aria-pressed={open === does}
            className={open === does ? 'font-semibold text-ink! no-underline!' : ''}
            onClick={() => setShown(does)}
          >
            {doesWords[does]} {steps.filter((step) => step.does === does).length}
          </Button>
        ))}
      </div>
      <ul
        className="mt-1 max-h-[32rem] divide-y divide-line overflow-y-auto"
        tabIndex={0}
        aria-label="Steps of the plan"
      >
        {steps
          .filter((step) => step.does === open)
          .map((step) => (
            <li key={step.instance} className="py-1.5">
              <p>
                <span className="font-semibold">{step.name}</span>{' '}
                <span className="text-ink-3">
                  {step.kind}
                  {step.into ? ` in ${step.into}` : ''}
                  {step.does === 'create' && step.dueAt
                    ? `, due ${localWords(step.dueAt, timeZone)}`
                    : ''}
                  {step.does === 'create' && step.opensAt
                    ? `, opens ${localWords(step.opensAt, timeZone)}`
                    : ''}
                </span>
              </p>
              {step.fields.length === 0 ? (
                <p className="text-ink-2">{step.reason}</p>
              ) : (
                step.fields.map((field) => (
                  <FieldView
                    key={field.field}
                    step={step}
                    field={field}
                    timeZone={timeZone}
                    decide={decide}
                  />
                ))
              )}
            </li>
          ))}
      </ul>
    </div>
  )
}
