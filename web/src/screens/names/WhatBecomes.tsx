import { useMemo } from 'react'
import { everyPart, homePageKey, nameVerdicts, type NameVerdict } from '@wickerframe/core'
import type { NameInUse } from '@wickerframe/contract'
import { useTemplates } from '../../api/queries.ts'
import { Choice, Pick, plural } from '../../controls/controls.tsx'
import { useAddress } from '../../shell/useAddress.ts'
import { FoundFormats } from './FoundFormats.tsx'
import { NameRows, type NameRow } from './NameRows.tsx'
import { TypedNames } from './TypedNames.tsx'
import type { NamesBench } from './useNamesBench.ts'
import type { Progress } from './useNameWorker.ts'

const verdictTitles: Record<NameVerdict, string> = {
  follows: 'Follow',
  'small-differences': 'Small differences',
  mendable: 'Mendable',
  unreadable: 'Not readable',
}

/** Names held to the format: how many follow it, and what the others would become. */
export const WhatBecomes = ({
  bench,
  progress,
  picked,
  onFlip,
}: {
  bench: NamesBench
  progress: Progress
  picked: ReadonlySet<number>
  onFlip: (index: number) => void
}) => {
  const { names, fromCourses, inUse, templateKey } = bench
  const leftOut = inUse.data?.leftOut ?? 0
  return (
    <section className="min-w-0">
      <h2 className="text-[18px]">What becomes of names</h2>
      <NamesOf bench={bench} />
      {!fromCourses && templateKey === '' && (
        <TypedNames value={bench.typedNames} onChange={bench.typeNames} />
      )}
      {leftOut > 0 && (
        <p className="text-straw">{plural(leftOut, 'course')} more were not looked at.</p>
      )}
      <FoundFormats
        formats={progress.inferred}
        names={names.length}
        format={bench.format}
        onTake={bench.typeFormat}
      />
      {names.length > 0 && (
        <Verdicts bench={bench} progress={progress} picked={picked} onFlip={onFlip} />
      )}
      {fromCourses && inUse.data?.names.length === 0 && (
        <p className="py-6 text-ink-2">
          No course bears this part yet, or none was checked. Deploy the template and check the
          courses, then look again.
        </p>
      )}
    </section>
  )
}

/** Whose names: a list of one's own, or a part of a template in every course that has it. */
const NamesOf = ({ bench }: { bench: NamesBench }) => {
  const templates = useTemplates()
  const draft = bench.draft.data?.draft
  return (
    <div className="mt-1 flex flex-wrap items-end gap-3">
      <Pick
        label="Names of"
        value={bench.templateKey}
        onChange={(event) => bench.chooseTemplate(event.target.value)}
        options={[
          { value: '', text: 'a list of your own' },
          ...(templates.data ?? []).map(({ key, title }) => ({ value: key, text: title })),
        ]}
      />
      {bench.templateKey !== '' && (
        <Pick
          label="Part"
          value={bench.part}
          onChange={(event) => bench.choosePart(event.target.value)}
          options={[
            { value: '', text: 'choose …' },
            ...(draft
              ? [
                  { value: 'course', text: 'the courses themselves' },
                  { value: homePageKey, text: draft.home.name },
                  ...everyPart(draft).map(({ key, name }) => ({ value: key, text: name })),
                ]
              : []),
          ]}
        />
      )}
    </div>
  )
}

const Verdicts = ({
  bench: { names, fromCourses },
  progress: { judged, count, done },
  picked,
  onFlip,
}: {
  bench: NamesBench
  progress: Progress
  picked: ReadonlySet<number>
  onFlip: (index: number) => void
}) => {
  const { search, set } = useAddress()
  const show = search.get('show') as NameVerdict | null
  const counts = useMemo(() => {
    const sums = new Map<NameVerdict, number>()
    for (const name of judged) if (name) sums.set(name.verdict, (sums.get(name.verdict) ?? 0) + 1)
    return sums
  }, [judged])
  const rows = useMemo(
    () =>
      judged.flatMap((verdict, index): NameRow[] => {
        const listed = names[index]
        if (!verdict || !listed || (show !== null && verdict.verdict !== show)) return []
        const real = fromCourses ? (listed as NameInUse) : null
        const where = real ? `${real.code} ${real.title}` : null
        return [{ index, name: listed.name, where, judged: verdict }]
      }),
    [judged, names, show, fromCourses],
  )
  return (
    <>
      <div className="my-2 flex flex-wrap items-center gap-2" role="group" aria-label="Show">
        <Choice pressed={show === null} onClick={() => set({ show: null })}>
          All {count}
        </Choice>
        {nameVerdicts.map((verdict) => (
          <Choice
            key={verdict}
            pressed={show === verdict}
            onClick={() => set({ show: show === verdict ? null : verdict })}
          >
            {verdictTitles[verdict]} {counts.get(verdict) ?? 0}
          </Choice>
        ))}
        <span className="text-ink-3" role="status">
          {done ? '' : `${count} of ${names.length} …`}
        </span>
      </div>
      <NameRows rows={rows} picked={fromCourses ? picked : null} onPick={onFlip} />
      {fromCourses && (
        <p className="mt-1 text-ink-2">
          {plural(picked.size, 'name')} picked. Planning writes nothing: you look the plan over, and
          approve it, under Rollouts.
        </p>
      )}
    </>
  )
}
