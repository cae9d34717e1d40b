import { useMutation } from '@tanstack/react-query'
import { useMemo, useState } from 'react'
import { useNavigate } from 'react-router'
import type { CoursePlan } from '@wickerframe/contract'
import { post } from '../../api/client.ts'
import { useCourses, useTemplates } from '../../api/queries.ts'
import { Button, Page, plural, Problem, Waiting } from '../../controls/controls.tsx'
import { useAddress } from '../../shell/useAddress.ts'
import { stateWords } from '../courses/CoursesScreen.tsx'
import { PlanSteps } from './PlanSteps.tsx'

const planWords = (plan: CoursePlan): string => {
  const created = plan.steps.filter((step) => step.does === 'create').length
  const kept = plan.steps.filter((step) => step.does === 'keep').length
  if (plan.state === 'ready') return `${plural(created, 'part')} created${kept > 0 ? `, ${kept} kept` : ''}. ${plan.reason}`
  return plan.reason
}

/** One page of sentences with blanks: which version, which courses; the plan grows below. */
export const NewRolloutScreen = () => {
  const templates = useTemplates()
  const courses = useCourses()
  const navigate = useNavigate()
  const { search, set } = useAddress()
  const [opened, setOpened] = useState<number | null>(null)
  const [leftOut, setLeftOut] = useState<ReadonlySet<number>>(new Set())
  const chosenKey = search.get('template') ?? ''
  const template = templates.data?.find((one) => one.key === chosenKey)
  const offered = template?.versions.filter((one) => !one.retired) ?? []
  const version = Number(search.get('version') ?? offered[0]?.number ?? 0)
  const chosen = useMemo(() => new Set((search.get('courses') ?? '').split('.').map(Number).filter((id) => id > 0)), [search])
  const plans = useMutation({ mutationFn: () => post<CoursePlan[]>('/api/plans', { template: chosenKey, version, courses: [...chosen] }) })
  const approve = useMutation({
    mutationFn: (ready: readonly CoursePlan[]) => post<{ run: number }>('/api/rollouts', { template: chosenKey, version, courses: ready.map((plan) => ({ course: plan.course, planDigest: plan.digest })) }),
    onSuccess: ({ run }) => void navigate(`/rollouts/${run}`),
  })
  if (templates.isPending || courses.isPending) return <Page title="Plan a rollout"><Waiting what="templates and courses" /></Page>
  const toggle = (id: number) => {
    const next = new Set(chosen)
    if (!next.delete(id)) next.add(id)
    plans.reset()
    set({ courses: [...next].join('.') })
  }
  const fitting = (courses.data ?? []).filter((course) => course.status === 'teaching' || course.status === 'preparing')
  const ready = (plans.data ?? []).filter((plan) => plan.state === 'ready' && !leftOut.has(plan.course))
  const parts = ready.reduce((sum, plan) => sum + plan.steps.filter((step) => step.does === 'create').length, 0)
  const blank = 'border-0 border-b-2 border-tide bg-tide-soft px-1 py-0.5 text-ink'
  return (
    <Page title="Plan a rollout" above="Nothing is written until you approve the plan.">
      <p className="mt-3 font-serif text-[18px] leading-loose">
        Put{' '}
        <select aria-label="Template" className={blank} value={chosenKey} onChange={(event) => { plans.reset(); set({ template: event.target.value }) }}>
          <option value="">which template?</option>
          {templates.data?.filter((one) => one.versions.some((two) => !two.retired)).map((one) => <option key={one.key} value={one.key}>{one.title}</option>)}
        </select>
        {template && (
          <>
            , version{' '}
            <select aria-label="Version" className={blank} value={version} onChange={(event) => { plans.reset(); set({ version: event.target.value }) }}>
              {offered.map((one) => <option key={one.number} value={one.number}>{one.number}{one.note ? `, ${one.note}` : ''}</option>)}
            </select>
          </>
        )}{' '}
        into <strong>{plural(chosen.size, 'course')}</strong> of the term.
      </p>
      <details className="mt-2 border border-line bg-sheet" open={chosen.size === 0}>
        <summary className="cursor-pointer px-3 py-1.5 font-semibold">Which courses: {chosen.size} of {fitting.length} chosen</summary>
        <div className="flex gap-4 border-t border-line px-3 py-1.5">
          <Button shape="word" onClick={() => { plans.reset(); set({ courses: fitting.filter((course) => course.state === 'shell' || course.state === 'not-read').map((course) => course.id).join('.') }) }}>all shells</Button>
          <Button shape="word" onClick={() => { plans.reset(); set({ courses: fitting.map((course) => course.id).join('.') }) }}>all</Button>
          <Button shape="word" onClick={() => { plans.reset(); set({ courses: '' }) }}>none</Button>
        </div>
        <ul className="grid max-h-60 grid-cols-2 overflow-y-auto border-t border-line p-2 lg:grid-cols-3" tabIndex={0} aria-label="Courses to choose from">
          {fitting.map((course) => (
            <li key={course.id}>
              <label className="flex gap-2 px-1 py-0.5">
                <input type="checkbox" className="size-[24px] shrink-0 accent-tide" checked={chosen.has(course.id)} onChange={() => toggle(course.id)} />
                <span className="truncate">{course.code} {course.title} <span className="text-ink-3">{course.classSections.join(', ')} · {course.modality} · {stateWords[course.state]}</span></span>
              </label>
            </li>
          ))}
        </ul>
      </details>
      <div className="mt-4 flex items-center gap-3">
        <Button shape={plans.data ? 'plain' : 'main'} disabled={!template || chosen.size === 0 || plans.isPending} onClick={() => plans.mutate()}>{plans.isPending ? 'Reading the courses …' : 'Show the plan'}</Button>
        {ready.length > 0 && <Button shape="main" disabled={approve.isPending} onClick={() => approve.mutate(ready)}>Approve and run: {plural(parts, 'part')} in {plural(ready.length, 'course')}</Button>}
      </div>
      <div className="mt-3"><Problem error={plans.error ?? approve.error} /></div>
      {plans.data && (
        <section className="mt-2">
          <h2 className="text-[18px]">The plan, course by course</h2>
          <ul className="mt-2 divide-y divide-line border-y border-line">
            {plans.data.map((plan) => (
              <li key={plan.course} className="py-2">
                <div className="grid grid-cols-[2rem_18rem_1fr_6rem] items-center gap-3">
                  <input type="checkbox" className="size-[24px] accent-tide" aria-label={`Include ${plan.code} ${plan.title}`} disabled={plan.state !== 'ready'} checked={plan.state === 'ready' && !leftOut.has(plan.course)}
                    onChange={() => setLeftOut((before) => { const next = new Set(before); if (!next.delete(plan.course)) next.add(plan.course); return next })} />
                  <span className="truncate font-semibold">{plan.code} {plan.title} <span className="font-normal text-ink-3">{plan.classSections.join(', ')}</span></span>
                  <span className={plan.state === 'ready' ? '' : plan.state === 'unusable' ? 'text-rust' : 'text-ink-2'}>{planWords(plan)}</span>
                  {plan.steps.length > 0 && <Button shape="word" aria-expanded={opened === plan.course} onClick={() => setOpened(opened === plan.course ? null : plan.course)}>{opened === plan.course ? 'fold' : 'open'}</Button>}
                </div>
                {opened === plan.course && <PlanSteps steps={plan.steps} timeZone={plan.timeZone} />}
              </li>
            ))}
          </ul>
        </section>
      )}
    </Page>
  )
}
