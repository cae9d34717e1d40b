import { useQuery } from '@tanstack/react-query'
import { useEffect, useRef, useState } from 'react'
import { everyPart, type ModelProposal, type Template } from '@wickerframe/core'
import { call } from '../../api/client.ts'
import { useCourses } from '../../api/queries.ts'
import { Pick, plural, Problem, Waiting } from '../../controls/controls.tsx'
import { tellApart } from '../../controls/tellApart.ts'
import { Tick } from '../../controls/typed.tsx'
import type { ModelAsk, ModelTell } from './model.worker.ts'
import modelWorker from './model.worker.ts?shared-worker-url'

const aboutWords: Readonly<Record<ModelProposal['about'], string>> = {
  repeat: 'What repeats',
  part: 'Parts of the repeated module',
  format: 'Naming formats',
  'fixed-text': 'Fixed text',
  'fill-in': 'Left to the instructor',
  different: 'Only in one repetition',
}
const order: readonly ModelProposal['about'][] = [
  'repeat',
  'part',
  'format',
  'different',
  'fixed-text',
  'fill-in',
]

/** Makes a template from a model course: what it suggests, each to be accepted or refused. */
export const ModelPage = ({
  course,
  templateKey,
  title,
  onCourse,
  onAsked,
  onMade,
}: {
  course: string
  templateKey: string
  title: string
  onCourse: (id: string) => void
  /** Something was decided: what was made before is out of date until it is made anew. */
  onAsked: () => void
  onMade: (template: Template | null) => void
}) => {
  const courses = useCourses()
  const chosen = useQuery({
    queryKey: ['course', course, null],
    queryFn: () => call('readCourse', { at: { course } }),
    enabled: course !== '',
  })
  const worker = useRef<Worker | null>(null)
  const job = useRef(0)
  const [refused, setRefused] = useState<ReadonlySet<string>>(new Set())
  const [accepted, setAccepted] = useState<ReadonlySet<string>>(new Set())
  const [proposals, setProposals] = useState<readonly ModelProposal[] | null>(null)
  const [problem, setProblem] = useState<string | null>(null)
  /** What the parts are called, by key, as far as they are accepted. */
  const [names, setNames] = useState<ReadonlyMap<string, string>>(new Map())
  const told = useRef({ onMade, onAsked })
  useEffect(() => {
    told.current = { onMade, onAsked }
  })
  useEffect(() => {
    const started = new Worker(modelWorker, { type: 'module' })
    started.addEventListener('message', ({ data }: MessageEvent<ModelTell>) => {
      if (data.job !== job.current) return
      if (data.made.ok) {
        setProposals(data.made.value.proposals)
        setProblem(null)
        const { template } = data.made.value
        setNames(new Map(everyPart(template).map(({ key, name }) => [key, name])))
        told.current.onMade(template)
      } else {
        const [first] = data.made.problems
        setProblem(
          `It comes to no template: at ${first?.path}, found ${first?.found}; expected ${first?.expected}`,
        )
        told.current.onMade(null)
      }
    })
    started.addEventListener('error', () => setProblem('The course could not be read as a model.'))
    worker.current = started
    return () => {
      worker.current = null
      started.terminate()
    }
  }, [])
  const snapshot = chosen.data?.snapshot ?? null
  const facts = chosen.data?.facts ?? null
  // What little bears out is refused until somebody accepts it.
  const doubtful = (proposals ?? [])
    .filter((proposal) => proposal.support < 0.5 && !accepted.has(proposal.id))
    .map((proposal) => proposal.id)
  const without = [...new Set([...refused, ...doubtful])].sort().join('\n')
  useEffect(() => {
    if (!snapshot || !facts) return
    job.current += 1
    told.current.onAsked()
    worker.current?.postMessage({
      job: job.current,
      course: snapshot,
      facts,
      key: templateKey,
      title,
      refused: without === '' ? [] : without.split('\n'),
    } satisfies ModelAsk)
  }, [snapshot, facts, templateKey, title, without])
  const isRefused = (proposal: ModelProposal) =>
    refused.has(proposal.id) || doubtful.includes(proposal.id)
  const decide = (proposal: ModelProposal, take: boolean) => {
    const next = (before: ReadonlySet<string>, on: boolean) => {
      const set = new Set(before)
      if (on) set.add(proposal.id)
      else set.delete(proposal.id)
      return set
    }
    setRefused((before) => next(before, !take))
    setAccepted((before) => next(before, take))
  }
  const apart = tellApart(courses.data ?? [])
  return (
    <div>
      <Pick
        label="Model course"
        className="[&>select]:max-w-md"
        value={course}
        onChange={(event) => {
          setRefused(new Set())
          setAccepted(new Set())
          setProposals(null)
          onCourse(event.target.value)
        }}
        options={[
          { value: '', text: 'which …' },
          ...(courses.data ?? []).map((course) => ({
            value: String(course.id),
            text: `${course.code} ${course.title}, ${apart.get(course.platformId)} (${course.weeks} weeks)`,
          })),
        ]}
      />
      <Problem error={chosen.error} />
      {course !== '' && chosen.isPending && <Waiting what="the course" />}
      {chosen.data && !snapshot && (
        <p className="mt-2 text-ink-2">
          This course was not read from the platform yet. Check it once, and come back.
        </p>
      )}
      {problem && (
        <p role="alert" className="mt-2 border-l-4 border-rust bg-rust-soft px-3 py-1">
          {problem}
        </p>
      )}
      {snapshot && proposals === null && !problem && <Waiting what="what repeats" />}
      {proposals && (
        <>
          <p className="mt-2 text-ink-2">
            {plural(proposals.length, 'proposal')}; what little bears out starts refused. The
            outline beside shows what the accepted ones come to.
          </p>
          {order.map((about) => {
            const some = proposals.filter((proposal) => proposal.about === about)
            return (
              some.length > 0 && (
                <details
                  key={about}
                  open={about === 'repeat' || about === 'part' || about === 'format'}
                  className="mt-2"
                >
                  <summary className="cursor-pointer font-semibold">
                    {aboutWords[about]} ({some.filter((proposal) => !isRefused(proposal)).length} of{' '}
                    {some.length} accepted)
                  </summary>
                  <ul className="divide-y divide-line border-y border-line">
                    {some.map((proposal) => (
                      <li key={proposal.id} className="py-1">
                        <Tick
                          label={proposal.words}
                          checked={!isRefused(proposal)}
                          onChange={(take) => decide(proposal, take)}
                        />
                        <p className="pl-6 text-[12.5px] text-ink-3">
                          {about !== 'repeat' && about !== 'part' && names.has(proposal.part)
                            ? `“${names.get(proposal.part)}”: `
                            : ''}
                          {proposal.evidence}
                          {proposal.support < 0.5 ? '; little bears it out' : ''}
                        </p>
                      </li>
                    ))}
                  </ul>
                </details>
              )
            )
          })}
          {proposals.every((proposal) => proposal.about !== 'repeat') && (
            <p className="mt-2 text-ink-2">
              Nothing was found that repeats often enough; the modules are taken as they stand.
            </p>
          )}
        </>
      )}
    </div>
  )
}
