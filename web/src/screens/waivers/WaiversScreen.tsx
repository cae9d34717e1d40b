import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState, type ReactNode } from 'react'
import type { Me, WaiverLine } from '@wickerframe/contract'
import { may } from '@wickerframe/contract/capabilities'
import { call } from '../../api/client.ts'
import { Button, plural, Problem, Waiting } from '../../controls/controls.tsx'
import { ConformancePage } from '../conformance/ConformancePage.tsx'
import { CourseName } from '../../controls/CourseName.tsx'
import { alikeAmong } from '../../controls/tellApart.ts'
import { WideWaiverDialog } from './WideWaiverDialog.tsx'

/** What a waiver excuses. */
const aboutOf = (
  { title, part, week, scope }: WaiverLine,
  nameOf: ReadonlyMap<string, string>,
): string => {
  const rule = title === '' ? 'Whatever is wrong' : title
  if (part === null) return rule
  const at = `at “${nameOf.get(part) ?? part}”`
  if (week !== null) return `${rule}, ${at} in week ${week}`
  return scope === 'part' ? `${rule}, ${at} wherever it stands` : `${rule}, ${at}`
}

/** In which courses, where it is not one. */
const reachOf = ({ reach }: WaiverLine): string =>
  [
    plural(reach.courses, 'course'),
    reach.listed ? 'named one by one' : '',
    reach.department === null ? '' : `of ${reach.department}`,
    reach.template === null ? '' : `under ${reach.template}`,
    reach.term === null ? '' : `in ${reach.term}`,
  ]
    .filter(Boolean)
    .join(', ')

const lasts = ({ from, until, carried }: WaiverLine, today: string): string =>
  [
    from > today ? `from ${from}` : '',
    until === null ? 'without end' : `until ${until}`,
    carried ? 'goes on in the next term' : '',
  ]
    .filter(Boolean)
    .join(', ')

const states: Readonly<Record<WaiverLine['state'], string>> = {
  asked: 'asked for',
  approved: 'ended',
  refused: 'refused',
  withdrawn: 'withdrawn',
}

/** Waivers of all courses: those asked for with their answer, those in force, and those that are past. */
export const WaiversScreen = ({ me }: { me: Me }) => {
  const queue = useQuery({ queryKey: ['waivers'], queryFn: () => call('listWaivers') })
  const [giving, setGiving] = useState(false)
  const [said, setSaid] = useState('')
  const view = queue.data
  const isTwin = alikeAmong(
    [...(view?.asked ?? []), ...(view?.inForce ?? []), ...(view?.past ?? [])].flatMap(
      ({ course }) => course ?? [],
    ),
  )
  const nameOf = new Map(
    view?.choices.templates.flatMap(({ parts }) => parts.map(({ key, name }) => [key, name])),
  )
  const line = (waiver: WaiverLine, end: ReactNode) => (
    <Line
      key={waiver.id}
      waiver={waiver}
      about={aboutOf(waiver, nameOf)}
      today={me.today}
      apart={waiver.course !== null && isTwin(waiver.course)}
      end={end}
    />
  )
  return (
    <ConformancePage
      title="Waivers"
      here="waivers"
      beside={
        may(me, 'decide waivers') &&
        view && <Button onClick={() => setGiving(true)}>Waive in many courses …</Button>
      }
    >
      <Problem error={queue.error} />
      {queue.isPending && <Waiting what="the waivers" />}
      <p role="status" className={said === '' ? '' : 'mt-2 border-l-4 border-tide px-3'}>
        {said}
      </p>
      {view && (
        <>
          <Lines title="Asked for" nobody="Nobody asks for one.">
            {view.asked.map((waiver) => line(waiver, <Answer waiver={waiver} me={me} />))}
          </Lines>
          <Lines
            title="In force"
            nobody="None. A waiver is a dated exception with its reason: for one place, a part or a rule, in one course or many."
          >
            {view.inForce.map((waiver) =>
              line(waiver, waiver.mayDecide && <Withdraw waiver={waiver} />),
            )}
          </Lines>
          {view.past.length > 0 && (
            <details className="mt-6">
              <summary className="cursor-pointer font-serif text-[18px] font-semibold">
                Past ({view.past.length})
              </summary>
              <ul className="mt-1 divide-y divide-line border-y border-line">
                {view.past.map((waiver) =>
                  line(
                    waiver,
                    <span className="text-ink-2">
                      {states[waiver.state]}
                      {waiver.answer !== '' && `: “${waiver.answer}”`}
                    </span>,
                  ),
                )}
              </ul>
            </details>
          )}
        </>
      )}
      {view && giving && (
        <WideWaiverDialog
          choices={view.choices}
          today={me.today}
          onClose={() => setGiving(false)}
          onGiven={(courses) => {
            setGiving(false)
            setSaid(
              courses === 0
                ? 'The waiver is given. It reaches no course yet.'
                : `The waiver is given. ${plural(courses, 'course is', 'courses are')} being checked again for it.`,
            )
          }}
        />
      )}
    </ConformancePage>
  )
}

const Lines = ({
  title,
  nobody,
  children,
}: {
  title: string
  nobody: string
  children: readonly ReactNode[]
}) => (
  <section className="mt-5">
    <h2 className="text-[18px]">
      {title}
      {children.length > 0 && <span className="text-ink-2"> ({children.length})</span>}
    </h2>
    {children.length === 0 ? (
      <p className="text-ink-2">{nobody}</p>
    ) : (
      <ul className="mt-1 divide-y divide-line border-y border-line">{children}</ul>
    )}
  </section>
)

const Line = ({
  waiver,
  about,
  today,
  apart,
  end,
}: {
  waiver: WaiverLine
  about: string
  today: string
  apart: boolean
  end: ReactNode
}) => (
  <li className="grid grid-cols-[19rem_minmax(0,1fr)_auto] items-baseline gap-x-4 py-1.5 max-lg:grid-cols-1">
    <div>
      {waiver.course ? (
        <CourseName course={waiver.course} apart={apart} />
      ) : (
        <span className="font-semibold">{reachOf(waiver)}</span>
      )}
    </div>
    <div>
      <p>{about}</p>
      <p className="text-ink-2">
        {waiver.asks}: “{waiver.reason}” · {lasts(waiver, today)}
      </p>
    </div>
    <div className="lg:text-right">{end}</div>
  </li>
)

/** Giving or refusing what was asked for, with a word. */
const Answer = ({ waiver, me }: { waiver: WaiverLine; me: Me }) => {
  const client = useQueryClient()
  const [answer, setAnswer] = useState('')
  const decide = useMutation({
    mutationFn: (decision: 'approve' | 'refuse') =>
      call('decideWaiver', {
        at: { course: waiver.course?.id ?? 0, waiver: waiver.id },
        body: { decision, answer },
      }),
    onSuccess: () => client.invalidateQueries(),
  })
  if (!waiver.mayDecide || !may(me, 'decide waivers'))
    return <span className="text-ink-2">waits for a designer</span>
  return (
    <div className="flex flex-wrap items-baseline gap-x-3 print:hidden">
      <input
        className="w-56 border border-line-strong bg-sheet px-2 py-0.5"
        aria-label={`A word with the answer to ${waiver.asks}`}
        placeholder="a word with it"
        maxLength={2000}
        value={answer}
        onChange={(event) => setAnswer(event.target.value)}
      />
      <Button
        shape="word"
        className="py-0.5!"
        disabled={decide.isPending}
        onClick={() => decide.mutate('approve')}
      >
        give it
      </Button>
      <Button
        shape="word"
        className="py-0.5!"
        disabled={decide.isPending}
        onClick={() => decide.mutate('refuse')}
      >
        refuse
      </Button>
      <Problem error={decide.error} />
    </div>
  )
}

const Withdraw = ({ waiver }: { waiver: WaiverLine }) => {
  const client = useQueryClient()
  const withdraw = useMutation({
    mutationFn: async () => {
      await (waiver.course
        ? call('decideWaiver', {
            at: { course: waiver.course.id, waiver: waiver.id },
            body: { decision: 'withdraw' },
          })
        : call('withdrawWideWaiver', { at: { waiver: waiver.id } }))
    },
    onSuccess: () => client.invalidateQueries(),
  })
  return (
    <>
      <Button
        shape="word"
        className="py-0.5!"
        disabled={withdraw.isPending}
        onClick={() => withdraw.mutate()}
      >
        withdraw
      </Button>
      <Problem error={withdraw.error} />
    </>
  )
}
