import { useMutation } from '@tanstack/react-query'
import { useMemo, useState } from 'react'
import { useNavigate } from 'react-router'
import { everyPart, homePageKey } from '@wickerframe/core'
import { call } from '../../api/client.ts'
import { useCourses, useStandingRules, useTemplates, useVersion } from '../../api/queries.ts'
import { Button, Page, plural, Problem, Waiting } from '../../controls/controls.tsx'
import { tellApart } from '../../controls/tellApart.ts'
import { Tick } from '../../controls/typed.tsx'
import { useAddress } from '../../shell/useAddress.ts'
import { courseSorts, sortCourses, sortWords } from './chooseCourses.ts'
import { leavingWords } from './planWords.ts'
import { StandingRulesPart } from './StandingRulesPart.tsx'

const departmentsOf = (courses: readonly { department: string }[]): string[] =>
  [...new Set(courses.map((course) => course.department))].sort()

/** One page of sentences with blanks: which version, which courses, and what may happen to them. The plans are made next; nothing is written. */
export const NewRolloutScreen = () => {
  const templates = useTemplates()
  const courses = useCourses()
  const rules = useStandingRules()
  const navigate = useNavigate()
  const { search, set } = useAddress()
  const [restoreFixed, setRestoreFixed] = useState(false)
  const [restoreParts, setRestoreParts] = useState(false)
  const [standing, setStanding] = useState(false)
  const [only, setOnly] = useState<ReadonlySet<string>>(new Set())
  const [find, setFind] = useState('')
  const chosenKey = search.get('template') ?? ''
  const template = templates.data?.find((one) => one.key === chosenKey)
  const offered = template?.versions.filter((version) => !version.retired) ?? []
  const version = Number(search.get('version') ?? offered[0]?.number ?? 0)
  const document = useVersion(chosenKey, template && version > 0 ? version : null)
  const chosen = useMemo(
    () =>
      new Set(
        (search.get('courses') ?? '')
          .split('.')
          .map(Number)
          .filter((id) => id > 0),
      ),
    [search],
  )
  const appliesTo = document.data?.appliesTo
  const sorted = useMemo(
    () =>
      sortCourses(
        courses.data ?? [],
        chosenKey === ''
          ? null
          : {
              key: chosenKey,
              appliesTo: appliesTo ?? { modalities: [], departments: [], weeks: [] },
            },
      ),
    [courses.data, chosenKey, appliesTo],
  )
  const apart = useMemo(() => tellApart(courses.data ?? []), [courses.data])
  const makePlans = useMutation({
    mutationFn: () =>
      call('planRollout', {
        body: {
          order: {
            mode: 'version',
            template: chosenKey,
            version,
            only: only.size > 0 ? { parts: [...only], blocks: [] } : null,
            restore: { fixedText: restoreFixed, missingParts: restoreParts },
            adopt: sorted.some(
              ({ course, sort }) =>
                chosen.has(course.id) && (sort === 'other-content' || sort === 'checked-only'),
            ),
          },
          courses: [...chosen],
          standing,
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
  const choose = (ids: Iterable<number>) => set({ courses: [...new Set(ids)].join('.') })
  const toggle = (id: number) => {
    const next = new Set(chosen)
    if (!next.delete(id)) next.add(id)
    choose(next)
  }
  const department = search.get('department') ?? ''
  const modality = search.get('modality') ?? ''
  const shown = sorted.filter(
    ({ course, sort }) =>
      sort !== 'out' &&
      (department === '' || course.department === department) &&
      (modality === '' || course.modality === modality) &&
      `${course.code} ${course.title} ${apart.get(course.platformId)} ${course.instructors.map((instructor) => instructor.name).join(' ')}`
        .toLowerCase()
        .includes(find.toLowerCase()),
  )
  const fit = rules.data?.fits.find((fit) => fit.template === chosenKey)?.courses ?? []
  const odd = sorted.filter(({ course, odd: why }) => why !== null && chosen.has(course.id))
  const blank = 'border-0 border-b-2 border-tide bg-tide-soft px-1 py-0.5 text-ink'
  const parts = document.data
    ? [
        { key: homePageKey, name: document.data.home.name, kind: 'home page' },
        ...everyPart(document.data).map((part) => ({
          key: part.key,
          name: part.name,
          kind: part.kind,
        })),
      ]
    : []
  return (
    <Page title="Plan a rollout" above="Nothing is written until you approve the plans.">
      <p className="mt-3 font-serif text-[18px] leading-loose">
        Bring{' '}
        <select
          aria-label="Template"
          className={blank}
          value={chosenKey}
          onChange={(event) => {
            setOnly(new Set())
            set({ template: event.target.value, version: null })
          }}
        >
          <option value="">which template?</option>
          {templates.data
            ?.filter((one) => one.versions.some((two) => !two.retired))
            .map((one) => (
              <option key={one.key} value={one.key}>
                {one.title}
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
              onChange={(event) => set({ version: event.target.value })}
            >
              {offered.map((one) => (
                <option key={one.number} value={one.number}>
                  {one.number}
                  {one.note ? `, ${one.note}` : ''}
                </option>
              ))}
            </select>
          </>
        )}{' '}
        into <strong>{plural(chosen.size, 'course')}</strong>. What instructors wrote stays; what
        both changed is put to you.
      </p>
      <section className="mt-2 border border-line bg-sheet" aria-label="Which courses">
        <div className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-line px-3 py-1.5">
          <h2 className="text-[15px]">
            Which courses: {chosen.size} of {sorted.filter(({ sort }) => sort !== 'out').length}{' '}
            chosen
          </h2>
          <label className="flex gap-1 text-ink-2">
            Department{' '}
            <select
              className="border border-line-strong bg-sheet px-1 text-ink"
              value={department}
              onChange={(event) => set({ department: event.target.value })}
            >
              <option value="">all</option>
              {departmentsOf(courses.data ?? []).map((one) => (
                <option key={one}>{one}</option>
              ))}
            </select>
          </label>
          <label className="flex gap-1 text-ink-2">
            Modality{' '}
            <select
              className="border border-line-strong bg-sheet px-1 text-ink"
              value={modality}
              onChange={(event) => set({ modality: event.target.value })}
            >
              <option value="">all</option>
              <option>on-campus</option>
              <option>online</option>
              <option>hybrid</option>
            </select>
          </label>
          <label className="flex gap-1 text-ink-2">
            Find{' '}
            <input
              className="w-40 border border-line-strong bg-sheet px-1 text-ink"
              value={find}
              onChange={(event) => setFind(event.target.value)}
            />
          </label>
          <span className="ml-auto flex flex-wrap gap-4">
            {fit.length > 0 && (
              <Button
                shape="word"
                onClick={() =>
                  choose(
                    fit.filter((id) =>
                      sorted.some(({ course, odd: why }) => course.id === id && why === null),
                    ),
                  )
                }
              >
                the {fit.length} the standing rules give it
              </Button>
            )}
            <Button
              shape="word"
              onClick={() =>
                choose([
                  ...chosen,
                  ...shown.filter(({ odd: why }) => why === null).map(({ course }) => course.id),
                ])
              }
            >
              all shown that are not odd
            </Button>
            <Button shape="word" onClick={() => choose([])}>
              none
            </Button>
          </span>
        </div>
        <div
          className="max-h-72 overflow-y-auto"
          tabIndex={0}
          role="region"
          aria-label="Courses to choose from"
        >
          {courseSorts.map((sort) => {
            const these = shown.filter((one) => one.sort === sort)
            if (these.length === 0) return null
            const isOdd = these.every(({ odd: why }) => why !== null)
            const reasons = new Set(these.map(({ odd: why }) => why))
            return (
              <fieldset key={sort} className="border-b border-line px-3 py-1">
                <legend className="sr-only">{sortWords[sort]}</legend>
                <p className="flex flex-wrap items-baseline gap-3 font-semibold">
                  {sortWords[sort]}: {these.length}
                  {isOdd && (
                    <span className="font-normal text-straw">
                      left out until you tick them
                      {reasons.size === 1 ? `: ${these[0]?.odd}` : ''}
                    </span>
                  )}
                  {!isOdd && (
                    <Button
                      shape="word"
                      className="py-0! font-normal"
                      onClick={() => choose([...chosen, ...these.map(({ course }) => course.id)])}
                    >
                      all {these.length}
                    </Button>
                  )}
                </p>
                <ul className="grid grid-cols-2 lg:grid-cols-3">
                  {these.map(({ course, odd: why }) => (
                    <li key={course.id}>
                      <label className="flex gap-2 px-1 py-0.5">
                        <input
                          type="checkbox"
                          className="size-[24px] shrink-0 accent-tide"
                          checked={chosen.has(course.id)}
                          onChange={() => toggle(course.id)}
                        />
                        <span className="min-w-0">
                          <span className="flex gap-1">
                            <span className="truncate" title={course.title}>
                              {course.code} {course.title}
                            </span>
                            <span className="shrink-0 text-ink-2">
                              {apart.get(course.platformId)}
                            </span>
                          </span>
                          <span className="block text-ink-3">
                            {course.modality}
                            {course.template ? `, version ${course.template.version}` : ''}
                            {course.template && course.template.key !== chosenKey
                              ? ` of ${course.template.title}`
                              : ''}
                            {why !== null && sort === 'misfit' && reasons.size > 1
                              ? `; ${why}`
                              : ''}
                          </span>
                        </span>
                      </label>
                    </li>
                  ))}
                </ul>
              </fieldset>
            )
          })}
        </div>
      </section>
      {odd.length > 0 && (
        <p className="mt-2 text-straw">
          {leavingWords(
            odd
              .filter(({ sort }) => sort === 'other-template')
              .map(({ course }) => course.template?.title ?? null),
          ).map((words) => (
            <strong key={words} className="block font-semibold">
              {words}.
            </strong>
          ))}
          {plural(odd.length, 'odd course')} among those chosen:{' '}
          {odd
            .slice(0, 3)
            .map(
              ({ course, odd: why }) => `${course.code} ${apart.get(course.platformId)} (${why})`,
            )
            .join('; ')}
          {odd.length > 3 ? ' …' : ''}
        </p>
      )}
      <details className="mt-3 border border-line bg-sheet">
        <summary className="cursor-pointer px-3 py-1.5 font-semibold">
          What may happen:{' '}
          {only.size > 0 ? `only ${plural(only.size, 'part')}` : 'the whole version'}
          {restoreFixed ? ', altered fixed text is restored' : ''}
          {restoreParts ? ', removed parts come back' : ''}
          {standing ? ', with standing approval' : ''}
        </summary>
        <div className="flex flex-wrap gap-x-8 gap-y-1 border-t border-line px-3 py-2">
          <Tick
            label="restore fixed text that instructors altered or took out"
            checked={restoreFixed}
            onChange={setRestoreFixed}
          />
          <Tick
            label="bring back parts that were removed, but for those that may go"
            checked={restoreParts}
            onChange={setRestoreParts}
          />
          <Tick
            label="standing approval: if a course changes before its turn, go on as long as its plan only adds"
            checked={standing}
            onChange={setStanding}
          />
        </div>
        {parts.length > 0 && (
          <div className="border-t border-line px-3 py-2">
            <p className="text-ink-2">
              Only these parts and what is in them; none ticked means all:
            </p>
            <ul
              className="mt-1 grid max-h-48 grid-cols-2 overflow-y-auto lg:grid-cols-3"
              tabIndex={0}
              aria-label="Parts to bring"
            >
              {parts.map((part) => (
                <li key={part.key}>
                  <Tick
                    label={`${part.name} (${part.kind})`}
                    checked={only.has(part.key)}
                    onChange={(on) =>
                      setOnly((before) => {
                        const next = new Set(before)
                        if (on) next.add(part.key)
                        else next.delete(part.key)
                        return next
                      })
                    }
                  />
                </li>
              ))}
            </ul>
          </div>
        )}
      </details>
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
        <Problem error={makePlans.error} />
      </div>
      <StandingRulesPart
        templates={templates.data ?? []}
        courses={courses.data ?? []}
        rules={rules.data ?? null}
      />
    </Page>
  )
}
