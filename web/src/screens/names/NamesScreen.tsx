import { useMutation } from '@tanstack/react-query'
import { useMemo } from 'react'
import { Link, useNavigate } from 'react-router'
import type { NameInUse } from '@wickerframe/contract'
import { call } from '../../api/client.ts'
import { Button, Page, plural, Problem } from '../../controls/controls.tsx'
import { AcrossTerm } from './AcrossTerm.tsx'
import { FormatInput } from './FormatInput.tsx'
import { pickedNames, useFlipped } from './pickedNames.ts'
import { formatEdit, useNamesBench } from './useNamesBench.ts'
import { useNameWorker } from './useNameWorker.ts'
import { WhatBecomes } from './WhatBecomes.tsx'

/** Write a naming format, see it across the term, and see what becomes of the names there are. */
export const NamesScreen = () => {
  const navigate = useNavigate()
  const bench = useNamesBench()
  const { draft, format, fromCourses, inUse, names, parsed, part, templateFormat, templateKey } =
    bench
  const progress = useNameWorker(names, parsed.ok ? format : null, bench.context)
  const { flipped, flip } = useFlipped(names)
  const picked = useMemo(
    () => pickedNames(names, progress.judged, flipped),
    [names, progress.judged, flipped],
  )
  const plan = useMutation({
    mutationFn: () =>
      call('planRenames', {
        body: {
          names: [...picked].flatMap((i) => {
            const listed = names[i] as NameInUse | undefined
            const name = progress.judged[i]?.mended
            if (!listed || !name) return []
            const { course, what, id, name: was } = listed
            return [{ course, what, id, was, name }]
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
          edits: [formatEdit(part, templateFormat ?? '', format)],
        },
      }),
    onSuccess: () => draft.refetch(),
  })
  const canUse =
    templateFormat !== null && format !== templateFormat && parsed.ok && draft.data?.mayEdit

  return (
    <Page
      title="Naming bench"
      above={
        <About
          templateKey={templateKey}
          title={draft.data?.title}
          of={part === 'course' ? 'courses' : templateFormat}
        />
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
        <FormatInput value={format} onChange={bench.typeFormat} />
      </div>
      <div className="mt-2 grid gap-6 lg:grid-cols-[21rem_minmax(0,1fr)]">
        <AcrossTerm bench={bench} />
        <WhatBecomes bench={bench} progress={progress} picked={picked} onFlip={flip} />
      </div>
    </Page>
  )
}

const About = ({
  templateKey,
  title,
  of,
}: {
  templateKey: string
  title: string | undefined
  of: string | null
}) =>
  templateKey === '' ? (
    'Write a naming format, and see what becomes of names'
  ) : (
    <>
      <Link className="underline" to={`/templates/${templateKey}`}>
        {title ?? templateKey}
      </Link>{' '}
      › names{of === null ? '' : ` of ${of}`}
    </>
  )
