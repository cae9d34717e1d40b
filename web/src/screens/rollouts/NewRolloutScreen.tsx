import { useMutation } from '@tanstack/react-query'
import { useMemo, useState } from 'react'
import { useNavigate } from 'react-router'
import type { TemplateSummary } from '@wickerframe/contract'
import { call } from '../../api/client.ts'
import { useCourses, useStandingRules, useTemplates, useVersion } from '../../api/queries.ts'
import { Button, Page, plural, Problem, Waiting } from '../../controls/controls.tsx'
import { useAddress } from '../../shell/useAddress.ts'
import { sortCourses } from './chooseCourses.ts'
import { WhichCourses } from './WhichCourses.tsx'
import { StandingRulesPart } from './StandingRulesPart.tsx'
import { usualLeave, WhatMayHappen } from './WhatMayHappen.tsx'

const blank = 'border-0 border-b-2 border-tide bg-tide-soft px-1 py-0.5 text-ink'
const forEveryCourse = { modalities: [], departments: [], weeks: [] }

const isOffered = ({ retired }: { retired: unknown }): boolean => !retired

/** One page of sentences with blanks: which version, which courses, and what may happen to them. The plans are made next; nothing is written. */
export const NewRolloutScreen = () => {
  const templates = useTemplates()
  const courses = useCourses()
  const rules = useStandingRules()
  const navigate = useNavigate()
  const { search, set } = useAddress()
  const [leave, setLeave] = useState(usualLeave)
  const key = search.get('template') ?? ''
  const template = templates.data?.find((template) => template.key === key)
  const version = Number(search.get('version') ?? template?.versions.find(isOffered)?.number ?? 0)
  const document = useVersion(key, template && version > 0 ? version : null)
  const listed = search.get('courses') ?? ''
  const chosen = useMemo(
    () =>
      new Set(
        listed
          .split('.')
          .map(Number)
          .filter((id) => id > 0),
      ),
    [listed],
  )
  const appliesTo = document.data?.appliesTo ?? forEveryCourse
  const sorted = useMemo(
    () => sortCourses(courses.data ?? [], key === '' ? null : { key, appliesTo }),
    [courses.data, key, appliesTo],
  )
  const makePlans = useMutation({
    mutationFn: () =>
      call('planRollout', {
        body: {
          order: {
            mode: 'version',
            template: key,
            version,
            only: leave.only.size > 0 ? { parts: [...leave.only], blocks: [] } : null,
            restore: { fixedText: leave.restoreFixed, missingParts: leave.restoreParts },
            adopt: sorted.some(
              ({ course, sort }) =>
                chosen.has(course.id) && (sort === 'other-content' || sort === 'checked-only'),
            ),
          },
          courses: [...chosen],
          standing: leave.standing,
        },
      }),
    onSuccess: ({ run }) => void navigate(`/rollouts/${run}`),
  })
  if (templates.isPending || courses.isPending)
    return (
      <Page title="Plan a rollout">
        <Waiting what="templates and courses" />
      </Page>
    )
  return (
    <Page title="Plan a rollout" above="Nothing is written until you approve the plans.">
      <p className="mt-3 font-serif text-[18px] leading-loose">
        Bring{' '}
        <WhichVersion
          templates={templates.data ?? []}
          template={template}
          version={version}
          onTemplate={(next) => {
            setLeave({ ...leave, only: usualLeave.only })
            set({ template: next, version: null })
          }}
          onVersion={(next) => set({ version: next })}
        />{' '}
        into <strong>{plural(chosen.size, 'course')}</strong>. What instructors wrote stays; what
        both changed is put to you.
      </p>
      <WhichCourses
        sorted={sorted}
        chosen={chosen}
        onChoose={(ids) => set({ courses: [...new Set(ids)].join('.') })}
        template={key}
        fitting={rules.data?.fits.find((fit) => fit.template === key)?.courses ?? []}
      />
      <WhatMayHappen leave={leave} template={document.data} onChange={setLeave} />
      <div className="mt-4 flex items-center gap-3">
        <Button
          shape="main"
          disabled={!template || chosen.size === 0 || makePlans.isPending}
          onClick={() => makePlans.mutate()}
        >
          {chosen.size === 0
            ? 'Make the plans'
            : `Make the plans for ${plural(chosen.size, 'course')}`}
        </Button>
        {!template && <span className="text-ink-2">Choose a template first.</span>}
      </div>
      <div className="mt-3">
        <Problem error={makePlans.error ?? templates.error ?? courses.error} />
      </div>
      <StandingRulesPart
        templates={templates.data ?? []}
        courses={courses.data ?? []}
        rules={rules.data ?? null}
      />
    </Page>
  )
}

/** The blanks of the sentence that say what is brought. */
const WhichVersion = ({
  templates,
  template,
  version,
  onTemplate,
  onVersion,
}: {
  templates: readonly TemplateSummary[]
  template: TemplateSummary | undefined
  version: number
  onTemplate: (key: string) => void
  onVersion: (version: string) => void
}) => (
  <>
    <select
      aria-label="Template"
      className={blank}
      value={template?.key ?? ''}
      onChange={(event) => onTemplate(event.target.value)}
    >
      <option value="">which template?</option>
      {templates
        .filter(({ versions }) => versions.some(isOffered))
        .map(({ key, title }) => (
          <option key={key} value={key}>
            {title}
          </option>
        ))}
    </select>
    {template && (
      <>
        , version{' '}
        <select
          aria-label="Version"
          className={blank}
          value={version}
          onChange={(event) => onVersion(event.target.value)}
        >
          {template.versions.filter(isOffered).map(({ number, note }) => (
            <option key={number} value={number}>
              {number}
              {note ? `, ${note}` : ''}
            </option>
          ))}
        </select>
      </>
    )}
  </>
)
