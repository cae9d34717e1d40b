import { useMutation, useQuery } from '@tanstack/react-query'
import { useEffect, useMemo, useState } from 'react'
import type { CourseDetail, MeInCourse } from '@wickerframe/contract'
import { call } from '../../../api/client.ts'
import { useRun } from '../../../api/queries.ts'
import { Button, plural, Problem, Waiting } from '../../../controls/controls.tsx'
import { useAddress } from '../../../shell/useAddress.ts'
import { PageHtml } from '../../workbench/page/PageHtml.tsx'
import { AnswerField } from './AnswerField.tsx'
import { keepAnswers, keptAnswers, type Typed } from './keptAnswers.ts'
import { answersOf, asForm, readyIn, type AskedOnce, type PageToFill } from './typedAnswers.ts'

const noImages = () => null

/** What stands above the pieces of one block: its title, the sentences it is asked in. */
const About = ({ thing: { title, within, pieces } }: Pick<AskedOnce, 'thing'>) => (
  <>
    {(pieces.length > 1 || within !== null) && <h4 className="mt-2 font-semibold">{title}</h4>}
    {within !== null && (
      <blockquote className="border-l-2 border-line pl-3 font-serif text-ink-2">
        {within}
      </blockquote>
    )}
  </>
)

/** An answer as it could be, below the pieces of its block. */
const Example = ({ html }: { html: string }) => (
  <details className="text-[14px]">
    <summary className="cursor-pointer text-ink-2">For example</summary>
    <div className="page-text">
      <PageHtml html={html} sourceOf={noImages} />
    </div>
  </details>
)

const idOf = (item: string): string => `fill-in ${item}`

const PageForm = ({
  course,
  page: { item, name, url, week, neededBy, asked },
  typed,
  onType,
}: {
  course: number
  page: PageToFill
  typed: Readonly<Record<string, Typed>>
  onType: (key: string, typed: Typed | null) => void
}) => (
  <section
    id={idOf(item)}
    aria-label={name}
    // What has the cursor never stands behind the bar below.
    className="[&_input]:scroll-mb-20 [&_textarea]:scroll-mb-20 border-t border-line py-3"
  >
    <h3 className="flex flex-wrap items-baseline gap-x-3 font-serif text-[18px] font-semibold">
      {name}
      <span className="font-sans text-[13px] font-normal text-ink-2">
        {week !== null && `week ${week}, needed by ${neededBy} · `}
        {plural(asked.length, 'thing')} to say
        {url && (
          <>
            {' · '}
            <a className="underline" href={url} target="_blank" rel="noreferrer">
              on the platform
            </a>
          </>
        )}
      </span>
    </h3>
    {asked.map((once, i) => (
      <div key={once.key}>
        {once.thing !== asked[i - 1]?.thing && <About thing={once.thing} />}
        <AnswerField
          asked={once}
          typed={typed[once.key]}
          course={course}
          onType={(now) => onType(once.key, now)}
        />
        {once.thing.example !== null && once.thing !== asked[i + 1]?.thing && (
          <Example html={once.thing.example} />
        )}
      </div>
    ))}
  </section>
)

const mostNamed = 4
const namesOf = (names: readonly string[]): string =>
  new Intl.ListFormat('en-GB').format([
    ...names.slice(0, mostNamed).map((name) => `“${name}”`),
    ...(names.length > mostNamed ? [plural(names.length - mostNamed, 'more page')] : []),
  ])

const countOf = (pages: readonly PageToFill[]): number =>
  pages.reduce((sum, { asked }) => sum + asked.length, 0)

/** What has to be said, and what may stay open, page by page. */
const apart = (pages: readonly PageToFill[]): [wanted: PageToFill[], open: PageToFill[]] => {
  const those = (isOpen: boolean) =>
    pages
      .map((page) => ({
        ...page,
        asked: page.asked.filter(({ thing }) => (thing.strength === 'may') === isOpen),
      }))
      .filter(({ asked }) => asked.length > 0)
  return [those(false), those(true)]
}

/**
 * Everything the pages of a course still ask of its instructor, answered here in one place and written into the pages by one
 * press. What was typed stays until it is written.
 */
export const FillInTab = ({
  course,
  me,
  onBegun,
}: {
  course: CourseDetail
  me: MeInCourse
  onBegun: (run: number) => void
}) => {
  const asked = useQuery({
    queryKey: ['asked', course.id],
    queryFn: () => call('askedOfCourse', { at: { course: course.id } }),
  })
  const [typed, setTyped] = useState(() => keptAnswers(course.id))
  const [run, setRun] = useState<number | null>(null)
  /** What was sent last, of which what is asked no more was written. */
  const [sent, setSent] = useState<ReadonlySet<string>>(new Set())
  const progress = useRun(run).data
  const [task] = progress?.tasks ?? []
  const pages = useMemo(() => asForm(asked.data?.pages ?? []), [asked.data])
  const answers = useMemo(() => answersOf(pages, typed), [pages, typed])
  const ready = useMemo(() => readyIn(pages, typed), [pages, typed])
  const keep = (to: (before: Record<string, Typed>) => Record<string, Typed>) =>
    setTyped((before) => {
      const next = to(before)
      keepAnswers(course.id, next)
      return next
    })
  const type = (key: string, now: Typed | null) =>
    keep((before) => {
      const { [key]: _, ...others } = before
      return now === null ? others : { ...others, [key]: now }
    })
  const { search } = useAddress()
  const sought = search.get('page')
  const isThere = asked.data !== undefined
  useEffect(() => {
    // Whoever comes from a finding goes on at its page.
    if (isThere && sought !== null)
      document.getElementById(idOf(sought))?.querySelector<HTMLElement>('textarea, input')?.focus()
  }, [isThere, sought])
  const isDone = progress?.state === 'done'
  useEffect(() => {
    if (!isDone || sent.size === 0) return
    const asks = new Set(pages.flatMap((page) => page.asked.map(({ key }) => key)))
    const written = [...sent].filter((key) => !asks.has(key))
    if (written.length === 0) return
    setSent(new Set())
    keep((before) =>
      Object.fromEntries(Object.entries(before).filter(([key]) => !written.includes(key))),
    )
    // What is typed meanwhile is no reason.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [isDone, sent, pages])
  const send = useMutation({
    mutationFn: () => call('answerCourse', { at: { course: course.id }, body: { answers } }),
    onSuccess: (begun) => {
      setRun(begun.run)
      setSent(new Set(Object.keys(typed)))
      onBegun(begun.run)
    },
  })
  const isWriting = run !== null && !isDone && progress?.state !== 'cancelled'
  if (!asked.data)
    return asked.isPending ? (
      <Waiting what="what the course asks" />
    ) : (
      <Problem error={asked.error} />
    )
  const { notChecked, unread } = asked.data
  const isNow = ({ neededBy }: PageToFill) => neededBy <= me.today
  const [wanted, open] = apart(pages)
  const groups = [
    { title: 'Needed now', pages: wanted.filter(isNow), isOpen: true },
    { title: 'Needed later', pages: wanted.filter((page) => !isNow(page)), isOpen: true },
    { title: 'What may stay open', pages: open, isOpen: false },
  ].filter((group) => group.pages.length > 0)
  const count = countOf(wanted)
  const outcome = task && (task.state === 'done' || task.state === 'failed') && (
    <p
      role={task.state === 'failed' ? 'alert' : 'status'}
      className={`mt-2 w-full border-l-4 px-3 py-1 ${task.state === 'failed' ? 'border-rust bg-rust-soft' : 'border-slate bg-band'}`}
    >
      {task.message}. {answers.length > 0 && 'What was not written is still here.'}
    </p>
  )
  return (
    <>
      <p className="text-ink-2">
        {notChecked === 'no-template'
          ? 'The course is under no template, so nothing is asked.'
          : notChecked === 'never-read'
            ? 'The course was not read yet. “Read again” reads it.'
            : count === 0
              ? unread.length > 0
                ? 'Nothing else has to be said, as far as the pages can be read.'
                : 'Nothing has to be said any more: everything that is yours to say is said.'
              : `${plural(count, 'thing')} to say on ${plural(wanted.length, 'page')}. What you write here comes into the pages in place of what asks for it, and nothing else of them is touched.`}
      </p>
      {unread.length > 0 && (
        <p className="mt-2 max-w-[72ch] border-l-4 border-slate bg-band px-3 py-1">
          {namesOf(unread)} cannot be read here, so it is not known what{' '}
          {unread.length === 1 ? 'it still asks' : 'they still ask'}. Look on the platform, then
          “Read again”.
        </p>
      )}
      {pages.length === 0 && outcome}
      {groups.map(({ title, pages: among, isOpen }) => (
        <details key={title} open={isOpen} className="mt-4 max-w-4xl">
          <summary className="cursor-pointer">
            <h2 className="inline text-[20px]">{title}</h2>{' '}
            <span className="font-sans text-[14px] font-normal text-ink-2">
              {plural(countOf(among), 'thing')} on {plural(among.length, 'page')}
            </span>
          </summary>
          {among.map((page) => (
            <PageForm key={page.item} course={course.id} page={page} typed={typed} onType={type} />
          ))}
        </details>
      ))}
      {pages.length > 0 && (
        <div className="sticky bottom-0 flex flex-wrap items-baseline gap-4 border-t border-line-strong bg-paper py-2">
          {outcome}
          <Problem error={send.error} />
          <Button
            shape="main"
            disabled={answers.length === 0 || isWriting || send.isPending}
            onClick={() => send.mutate()}
          >
            {isWriting
              ? 'Being written …'
              : ready === 0
                ? 'Put answers into the course'
                : `Put ${plural(ready, 'answer')} into the course`}
          </Button>
          <span role="status" className="text-ink-2">
            {ready === 0
              ? 'Nothing is written yet.'
              : `${plural(ready, 'answer')} ready; kept here until written.`}
          </span>
        </div>
      )}
    </>
  )
}
