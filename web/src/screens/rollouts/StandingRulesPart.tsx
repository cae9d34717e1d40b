import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'
import type { CourseSummary, StandingRules, TemplateSummary } from '@wickerframe/contract'
import { modalities } from '@wickerframe/core'
import { call } from '../../api/client.ts'
import { Button, plural, Problem } from '../../controls/controls.tsx'

const ruleWords = (rule: {
  department: string | null
  modality: string | null
  weeks: number | null
}): string =>
  [
    rule.department ?? 'every department',
    rule.modality ?? 'any modality',
    rule.weeks === null ? 'any length' : plural(rule.weeks, 'week'),
  ].join(', ')

/** Which template is meant for which courses: rules that hold until they are removed, and the courses none or several speak of. */
export const StandingRulesPart = ({
  templates,
  courses,
  rules,
}: {
  templates: readonly TemplateSummary[]
  courses: readonly CourseSummary[]
  rules: StandingRules | null
}) => {
  const client = useQueryClient()
  const [department, setDepartment] = useState('')
  const [modality, setModality] = useState('')
  const [weeks, setWeeks] = useState('')
  const [template, setTemplate] = useState('')
  const refresh = () => client.invalidateQueries({ queryKey: ['standing-rules'] })
  const add = useMutation({
    mutationFn: () =>
      call('addStandingRule', {
        body: {
          department: department || null,
          modality: modalities.find((known) => known === modality) ?? null,
          weeks: weeks === '' ? null : Number(weeks),
          template,
        },
      }),
    onSuccess: refresh,
  })
  const remove = useMutation({
    mutationFn: (id: number) => call('removeStandingRule', { at: { rule: id } }),
    onSuccess: refresh,
  })
  if (!rules) return null
  const named = (ids: readonly number[]) =>
    ids.flatMap((id) => courses.find((course) => course.id === id) ?? [])
  const blank = 'border-0 border-b-2 border-tide bg-tide-soft px-1 py-0.5 text-ink'
  return (
    <section className="mt-8">
      <h2 className="text-[18px]">Standing rules</h2>
      <p className="text-ink-2">
        {rules.rules.length === 0
          ? 'A standing rule says which template courses of a department, modality and length are meant to have; new courses are then chosen for you.'
          : `${plural(
              rules.fits.reduce((sum, { courses }) => sum + courses.length, 0),
              'course',
            )} fit one rule, ${rules.none.length} none, ${rules.several.length} more than one.`}
      </p>
      <ul className="mt-1 divide-y divide-line">
        {rules.rules.map((rule) => (
          <li key={rule.id} className="flex flex-wrap items-baseline gap-3 py-1">
            <span>
              {ruleWords(rule)} → <strong>{rule.template.title}</strong>
            </span>
            <Button
              shape="word"
              disabled={remove.isPending}
              onClick={() => remove.mutate(rule.id)}
              aria-label={`Remove the rule ${ruleWords(rule)}`}
            >
              remove
            </Button>
          </li>
        ))}
      </ul>
      <p className="mt-2 leading-loose">
        Courses of{' '}
        <select
          aria-label="Department of the rule"
          className={blank}
          value={department}
          onChange={(event) => setDepartment(event.target.value)}
        >
          <option value="">every department</option>
          {[...new Set(courses.map((course) => course.department))].sort().map((name) => (
            <option key={name}>{name}</option>
          ))}
        </select>
        ,{' '}
        <select
          aria-label="Modality of the rule"
          className={blank}
          value={modality}
          onChange={(event) => setModality(event.target.value)}
        >
          <option value="">any modality</option>
          <option>on-campus</option>
          <option>online</option>
          <option>hybrid</option>
        </select>
        ,{' '}
        <select
          aria-label="Weeks of the rule"
          className={blank}
          value={weeks}
          onChange={(event) => setWeeks(event.target.value)}
        >
          <option value="">any length</option>
          {[...new Set(courses.map((course) => course.weeks))]
            .sort((a, b) => a - b)
            .map((weeks) => (
              <option key={weeks} value={weeks}>
                {weeks} weeks
              </option>
            ))}
        </select>{' '}
        get{' '}
        <select
          aria-label="Template of the rule"
          className={blank}
          value={template}
          onChange={(event) => setTemplate(event.target.value)}
        >
          <option value="">which template?</option>
          {templates.map((template) => (
            <option key={template.key} value={template.key}>
              {template.title}
            </option>
          ))}
        </select>{' '}
        <Button disabled={template === '' || add.isPending} onClick={() => add.mutate()}>
          Add the rule
        </Button>
      </p>
      <Problem error={add.error ?? remove.error} />
      {rules.rules.length > 0 && rules.none.length > 0 && (
        <p className="mt-1 text-straw">
          No rule speaks of{' '}
          {named(rules.none)
            .slice(0, 6)
            .map((course, i) => (
              <span key={course.id}>
                {i > 0 ? ', ' : ''}
                <Link className="underline" to={`/courses/${course.id}`}>
                  {course.code} {course.classSections.join(', ')}
                </Link>
              </span>
            ))}
          {rules.none.length > 6 ? ` and ${rules.none.length - 6} more` : ''}.
        </p>
      )}
      {rules.several.length > 0 && (
        <p className="mt-1 text-straw">
          Two rules disagree about{' '}
          {rules.several.slice(0, 4).map(({ course, templates: which }, i) => (
            <span key={course}>
              {i > 0 ? '; ' : ''}
              {named([course])[0]?.code} ({which.join(' and ')})
            </span>
          ))}
          {rules.several.length > 4 ? ` and ${rules.several.length - 4} more` : ''}.
        </p>
      )}
    </section>
  )
}
