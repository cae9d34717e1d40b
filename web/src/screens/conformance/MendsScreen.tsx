import { useMutation, useQuery } from '@tanstack/react-query'
import { useMemo, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { call } from '../../api/client.ts'
import { Button, plural, Problem, Waiting } from '../../controls/controls.tsx'
import { ConformancePage } from './ConformancePage.tsx'
import { tellApart } from '../../controls/tellApart.ts'

/** What Wickerframe can mend by itself, rule by rule, in all courses at once. Nothing is written before the plan is approved. */
export const MendsScreen = () => {
  const navigate = useNavigate()
  const mends = useQuery({ queryKey: ['mends'], queryFn: () => call('listMends') })
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set())
  const plan = useMutation({
    mutationFn: () => {
      const courses = new Map<number, { fingerprint: string; digest: string }[]>()
      for (const rule of mends.data ?? [])
        if (chosen.has(rule.rule))
          for (const course of rule.courses)
            courses.set(course.course, [
              ...(courses.get(course.course) ?? []),
              ...course.mends.map(({ fingerprint, digest }) => ({ fingerprint, digest })),
            ])
      return call('planMends', {
        body: { courses: [...courses].map(([course, list]) => ({ course, mends: list })) },
      })
    },
    onSuccess: ({ run }) => void navigate(`/rollouts/${run}`),
  })
  const rules = mends.data ?? []
  const apart = useMemo(
    () => tellApart((mends.data ?? []).flatMap((rule) => rule.courses)),
    [mends.data],
  )
  const picked = rules.filter((rule) => chosen.has(rule.rule))
  const toggle = (rule: string) =>
    setChosen((before) => {
      const next = new Set(before)
      if (!next.delete(rule)) next.add(rule)
      return next
    })
  return (
    <ConformancePage
      title="Mends in all courses"
      here="mends"
      beside={
        <Button
          shape="main"
          disabled={picked.length === 0 || plan.isPending}
          onClick={() => plan.mutate()}
        >
          {picked.length === 0
            ? 'Plan mends'
            : `Plan ${plural(
                picked.reduce((sum, rule) => sum + rule.places, 0),
                'mend',
              )}`}
        </Button>
      }
    >
      <p className="max-w-[72ch] text-ink-2">
        Where the right answer can be known, Wickerframe mends it. Choose rules; the plan shows
        every change in every course, and nothing is written until it is approved. What instructors
        wrote stays, and work that students have handed in is never touched.
      </p>
      <Problem error={mends.error ?? plan.error} />
      {mends.isPending && <Waiting what="what can be mended" />}
      {mends.data && rules.length === 0 && (
        <p className="py-6 text-ink-2">
          As of the last checks there is nothing that Wickerframe could mend by itself.
        </p>
      )}
      <ul className="mt-3">
        {rules.map((rule) => (
          <li key={rule.rule} className="border-t border-line py-2">
            <label className="flex items-baseline gap-3">
              <input
                type="checkbox"
                className="size-[18px] translate-y-0.5 accent-tide"
                checked={chosen.has(rule.rule)}
                onChange={() => toggle(rule.rule)}
              />
              <span className="grow font-semibold">{rule.title}</span>
              <span className="text-ink-2 tabular-nums">
                {plural(rule.places, 'place')} in {plural(rule.courses.length, 'course')}
              </span>
            </label>
            <details className="pl-8">
              <summary className="cursor-pointer text-tide underline">which</summary>
              <ul>
                {rule.courses.slice(0, 60).map((course) => (
                  <li key={course.course} className="border-t border-line py-1">
                    <Link className="underline" to={`/courses/${course.course}`}>
                      {course.code} {course.title}, {apart.get(course.platformId)}
                    </Link>
                    <ul className="text-ink-2">
                      {course.mends.slice(0, 6).map((mend) => (
                        <li key={mend.fingerprint}>{mend.message}</li>
                      ))}
                      {course.mends.length > 6 && <li>and {course.mends.length - 6} more</li>}
                    </ul>
                  </li>
                ))}
              </ul>
              {rule.courses.length > 60 && (
                <p className="text-ink-2">and {rule.courses.length - 60} more courses</p>
              )}
            </details>
          </li>
        ))}
      </ul>
    </ConformancePage>
  )
}
