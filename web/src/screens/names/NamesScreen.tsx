import { useMutation } from '@tanstack/react-query'
import { useMemo, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import {
  everyPart,
  homePageKey,
  nameContext,
  nameVerdicts,
  parseFormat,
  renderName,
  type NameVerdict,
  type Template,
  type TemplateEdit,
} from '@wickerframe/core'
import type { NameInUse } from '@wickerframe/contract'
import { call } from '../../api/client.ts'
import { useCourses, useDraft, useFacts, useNamesInUse, useTemplates } from '../../api/queries.ts'
import { Button, Choice, Page, Pick, plural, Problem } from '../../controls/controls.tsx'
import { useAddress } from '../../shell/useAddress.ts'
import { FormatInput } from './FormatInput.tsx'
import { FoundFormats } from './FoundFormats.tsx'
import { NameRows, type NameRow } from './NameRows.tsx'
import type { ListedName } from './protocol.ts'
import { TypedNames } from './TypedNames.tsx'
import { useNameWorker } from './useNameWorker.ts'

const usualFormat = 'Week {week} · {dates} · {topic}'
/** Names surer than this are picked to begin with; the rest wait for a look. */
const pickedFrom = 0.8

const verdictTitles: Record<NameVerdict, string> = {
  follows: 'Follow',
  'small-differences': 'Small differences',
  mendable: 'Mendable',
  unreadable: 'Not readable',
}

const noIndices: ReadonlySet<number> = new Set()

const formatOf = (template: Template, part: string): string | null =>
  part === 'course'
    ? template.naming.courseName
    : part === homePageKey
      ? template.home.name
      : (everyPart(template).find((one) => one.key === part)?.name ?? null)

/** Write a naming format, see it across the term, and see what becomes of the names there are. */
export const NamesScreen = () => {
  const { search, set } = useAddress()
  const navigate = useNavigate()
  const templateKey = search.get('template') ?? ''
  const part = search.get('part') ?? ''
  const templates = useTemplates()
  const draft = useDraft(templateKey, templateKey !== '')
  const courses = useCourses()
  const inUse = useNamesInUse(templateKey, part)
  const templateFormat = draft.data && part ? formatOf(draft.data.draft, part) : null

  // A part's own format stands to begin with; what is typed afterwards stays in the address.
  const [typedFormat, setTypedFormat] = useState(search.get('format'))
  const format = typedFormat ?? templateFormat ?? (templateKey === '' ? usualFormat : '')
  const type = (next: string | null) => {
    setTypedFormat(next)
    set({ format: next })
  }
  const [typed, setTyped] = useState('')
  const fromCourses = part !== '' && templateKey !== ''
  const names = useMemo((): readonly ListedName[] => {
    if (fromCourses) return inUse.data?.names ?? []
    return typed
      .split(/\r?\n/)
      .map((line) => line.trim())
      .filter((line) => line !== '')
      .map((name) => ({ name }))
  }, [fromCourses, inUse.data, typed])

  const courseId =
    search.get('course') ??
    String(
      courses.data?.find((one) => templateKey === '' || one.template?.key === templateKey)?.id ??
        courses.data?.[0]?.id ??
        '',
    )
  const facts = useFacts(courseId)
  const parsed = useMemo(() => parseFormat(format), [format])
  const context = useMemo(() => {
    if (!parsed.ok || !facts.data) return null
    const made = nameContext({ facts: facts.data, place: {} }, parsed.value)
    return made.ok ? made.value : null
  }, [parsed, facts.data])
  const soundFormat = parsed.ok ? format : null
  const progress = useNameWorker(names, soundFormat, context)

  const show = search.get('show') as NameVerdict | null
  const counts = useMemo(() => {
    const sums: Record<NameVerdict, number> = {
      follows: 0,
      'small-differences': 0,
      mendable: 0,
      unreadable: 0,
    }
    for (const one of progress.judged) if (one) sums[one.verdict] += 1
    return sums
  }, [progress.judged])
  const rows = useMemo(
    () =>
      progress.judged.flatMap((judged, index): NameRow[] => {
        const listed = names[index]
        if (!judged || !listed || (show !== null && judged.verdict !== show)) return []
        const real = fromCourses ? (listed as NameInUse) : null
        return [
          { index, name: listed.name, where: real ? `${real.code} ${real.title}` : null, judged },
        ]
      }),
    [progress.judged, names, show, fromCourses],
  )
  // Kept as what was changed by hand, so that a new judgement keeps the sure ones picked.
  const [changedByHand, setChangedByHand] = useState<{
    names: readonly ListedName[]
    indices: ReadonlySet<number>
  }>({ names, indices: new Set() })
  const flipped = changedByHand.names === names ? changedByHand.indices : noIndices
  const flip = (index: number) => {
    const indices = new Set(flipped)
    if (!indices.delete(index)) indices.add(index)
    setChangedByHand({ names, indices })
  }
  const picked = useMemo(() => {
    const sure = new Set<number>()
    progress.judged.forEach((one, i) => {
      if (!one || one.mended === null || one.mended === names[i]?.name) return
      const begins = one.confidence >= pickedFrom
      if (begins !== flipped.has(i)) sure.add(i)
    })
    return sure
  }, [progress.judged, flipped, names])
  const plan = useMutation({
    mutationFn: () =>
      call('planRenames', {
        body: {
          names: [...picked].flatMap((i) => {
            const one = names[i] as NameInUse | undefined
            const name = progress.judged[i]?.mended
            return one && name
              ? [{ course: one.course, what: one.what, id: one.id, was: one.name, name }]
              : []
          }),
        },
      }),
    onSuccess: ({ run }) => void navigate(`/rollouts/${run}`),
  })
  const use = useMutation({
    mutationFn: () =>
      call('editDraft', {
        at: { template: templateKey },
        body: {
          revision: draft.data?.draftRevision ?? 0,
          edits: [edited(part, templateFormat ?? '', format)],
        },
      }),
    onSuccess: () => draft.refetch(),
  })
  const parts = draft.data
    ? [
        { key: 'course', name: 'the courses themselves' },
        { key: homePageKey, name: draft.data.draft.home.name },
        ...everyPart(draft.data.draft).map((part) => ({ key: part.key, name: part.name })),
      ]
    : []
  const canUse =
    templateFormat !== null && format !== templateFormat && parsed.ok && draft.data?.mayEdit

  return (
    <Page
      title="Naming bench"
      above={
        templateKey ? (
          <>
            <Link className="underline" to={`/templates/${templateKey}`}>
              {draft.data?.title ?? templateKey}
            </Link>{' '}
            › names{part ? ` of ${part === 'course' ? 'courses' : part}` : ''}
          </>
        ) : (
          'Write a naming format, and see what becomes of names'
        )
      }
      beside={
        <>
          {canUse && (
            <Button disabled={use.isPending} onClick={() => use.mutate()}>
              Use it in the template’s draft
            </Button>
          )}
          {fromCourses && (
            <Button
              shape="main"
              disabled={picked.size === 0 || plan.isPending || !progress.done}
              onClick={() => plan.mutate()}
            >
              Plan {plural(picked.size, 'new name')}
            </Button>
          )}
        </>
      }
    >
      <div className="mt-2">
        <Problem error={plan.error ?? use.error ?? inUse.error ?? draft.error} />
      </div>
      <div className="mt-2">
        <FormatInput value={format} onChange={type} />
      </div>
      <div className="mt-2 grid gap-6 lg:grid-cols-[21rem_minmax(0,1fr)]">
        <section>
          <h2 className="text-[18px]">Across the term</h2>
          <Pick
            label="In the course"
            className="mt-1"
            value={courseId}
            onChange={(event) => set({ course: event.target.value })}
            options={(courses.data ?? []).map((one) => ({
              value: String(one.id),
              text: `${one.code} ${one.title} (${one.weeks} weeks)`,
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
              <li className="py-2 text-ink-2">
                As soon as the format is right, it is written out here.
              </li>
            )}
          </ol>
        </section>
        <section className="min-w-0">
          <h2 className="text-[18px]">What becomes of names</h2>
          <div className="mt-1 flex flex-wrap items-end gap-3">
            <Pick
              label="Names of"
              value={templateKey}
              onChange={(event) => {
                setTypedFormat(null)
                set({ template: event.target.value || null, part: null, format: null })
              }}
              options={[
                { value: '', text: 'a list of your own' },
                ...(templates.data ?? []).map((one) => ({ value: one.key, text: one.title })),
              ]}
            />
            {templateKey !== '' && (
              <Pick
                label="Part"
                value={part}
                onChange={(event) => {
                  setTypedFormat(null)
                  set({ part: event.target.value || null, format: null })
                }}
                options={[
                  { value: '', text: 'choose …' },
                  ...parts.map((part) => ({ value: part.key, text: part.name })),
                ]}
              />
            )}
          </div>
          {!fromCourses && templateKey === '' && <TypedNames value={typed} onChange={setTyped} />}
          {inUse.data && inUse.data.leftOut > 0 && (
            <p className="text-straw">
              {plural(inUse.data.leftOut, 'course')} more were not looked at.
            </p>
          )}
          <FoundFormats
            formats={progress.inferred}
            names={names.length}
            format={format}
            onTake={type}
          />
          {names.length > 0 && (
            <>
              <div
                className="my-2 flex flex-wrap items-center gap-2"
                role="group"
                aria-label="Show"
              >
                <Choice pressed={show === null} onClick={() => set({ show: null })}>
                  All {progress.count}
                </Choice>
                {nameVerdicts.map((verdict) => (
                  <Choice
                    key={verdict}
                    pressed={show === verdict}
                    onClick={() => set({ show: show === verdict ? null : verdict })}
                  >
                    {verdictTitles[verdict]} {counts[verdict]}
                  </Choice>
                ))}
                <span className="text-ink-3" role="status">
                  {progress.done ? '' : `${progress.count} of ${names.length} …`}
                </span>
              </div>
              <NameRows rows={rows} picked={fromCourses ? picked : null} onPick={flip} />
              {fromCourses && (
                <p className="mt-1 text-ink-2">
                  {plural(picked.size, 'name')} picked. Planning writes nothing: you look the plan
                  over, and approve it, under Rollouts.
                </p>
              )}
            </>
          )}
          {fromCourses && inUse.data?.names.length === 0 && (
            <p className="py-6 text-ink-2">
              No course bears this part yet, or none was checked. Deploy the template and check the
              courses, then look again.
            </p>
          )}
        </section>
      </div>
    </Page>
  )
}

/** The edit of a draft that gives a part, the home page or the courses another format. */
const edited = (part: string, was: string, value: string): TemplateEdit =>
  part === 'course'
    ? { edit: 'set-field', part: null, field: ['naming', 'courseName'], was, value }
    : { edit: 'set-field', part, field: ['name'], was, value }
