import { useQuery } from '@tanstack/react-query'
import { blockKindWords, everyCourseItem } from '@wickerframe/core'
import type { BlockOnPage, CourseDetail } from '@wickerframe/contract'
import { addressOf, call } from '../../api/client.ts'
import { Choice, Problem, Sentence } from '../../controls/controls.tsx'
import { useAddress } from '../../shell/useAddress.ts'

const standing: Readonly<Record<BlockOnPage['state'], string>> = {
  unchanged: 'as the template has it',
  filled: 'filled in',
  altered: 'changed',
  missing: 'not here',
  unfilled: 'not filled in yet',
  'prompt-beside-answer': 'the prompt still stands beside the answer',
  guidance: 'a note to the instructor, still here',
  outdated: 'an earlier wording',
}
const departs = (block: BlockOnPage): boolean =>
  block.state !== 'unchanged' && block.state !== 'filled'

const Block = ({ block }: { block: BlockOnPage }) => (
  <li className="border-t border-line py-2">
    <p>
      <span className="font-semibold">{blockKindWords(block.kind)}</span>: {standing[block.state]}
    </p>
    {departs(block) && (
      <p className="text-ink-2">
        The template expects: {block.expected.slice(0, 400) || 'nothing'}
      </p>
    )}
    {block.difference.length > 0 && (
      <p>
        {block.difference.map((run, i) =>
          run.change === 'same' ? (
            <span key={i}>{run.text}</span>
          ) : run.change === 'gone' ? (
            <del key={i} className="mr-1 bg-rust-soft decoration-rust">
              {run.text}
            </del>
          ) : (
            <ins key={i} className="bg-tide-soft decoration-tide">
              {run.text}
            </ins>
          ),
        )}
      </p>
    )}
  </li>
)

/** The student's page with what departs marked in place, and what the template expects beside it. */
export const CoursePages = ({
  course,
  asOf,
  chosen,
  onChoose,
}: {
  course: CourseDetail
  asOf: string
  chosen: string
  onChoose: (id: string) => void
}) => {
  const { search, set } = useAddress()
  const plain = search.get('plain') === '1' || course.template === null
  const items = course.snapshot
    ? everyCourseItem(course.snapshot).filter(({ item }) => item.html !== null)
    : []
  const shown = chosen || items[0]?.item.id || ''
  const difference = useQuery({
    queryKey: ['page-difference', course.id, shown, asOf],
    queryFn: () =>
      call('pageDifference', {
        at: { course: course.id, item: encodeURIComponent(shown) },
        query: { asOf },
      }),
    enabled: shown !== '' && course.template !== null,
  })
  const places =
    course.result?.findings.flatMap((finding) =>
      finding.places
        .filter((place) => place.place.foundId === shown)
        .map((place) => ({ finding, place })),
    ) ?? []
  const open = new Set(
    course.result?.findings.flatMap((finding) =>
      finding.places.flatMap((place) => place.place.foundId ?? []),
    ),
  )
  const at = { course: course.id, item: shown }
  const { data } = difference
  return (
    <div className="grid gap-4 lg:grid-cols-[17rem_minmax(0,1fr)_20rem]">
      <ul className="max-h-[70vh] overflow-y-auto" tabIndex={0} aria-label="Pages">
        {items.map(({ item, module }) => (
          <li key={item.id}>
            <button
              type="button"
              aria-current={item.id === shown}
              className={`flex w-full gap-2 px-2 py-0.5 text-left ${item.id === shown ? 'bg-sheet font-semibold' : ''}`}
              title={`${module?.name ?? ''} › ${item.name}`}
              onClick={() => onChoose(item.id)}
            >
              <span className="truncate">{item.name}</span>
              {open.has(item.id) && (
                <span className="ml-auto shrink-0 font-mono text-[11px] text-rust">open</span>
              )}
            </button>
          </li>
        ))}
      </ul>
      <div>
        <p className="mb-1 flex gap-2">
          <Choice pressed={!plain} onClick={() => set({ plain: null })}>
            with its departures marked
          </Choice>
          <Choice pressed={plain} onClick={() => set({ plain: '1' })}>
            as students see it
          </Choice>
        </p>
        {shown ? (
          <iframe
            title={
              plain ? 'The page as students would see it' : 'The page with its departures marked'
            }
            sandbox=""
            className="h-[70vh] w-full border border-line bg-sheet"
            src={
              plain
                ? addressOf('coursePage', { at })
                : addressOf('markedPage', { at, query: { asOf } })
            }
          />
        ) : (
          <p className="text-ink-2">The course has no pages.</p>
        )}
      </div>
      <div>
        <h3>What the template expects here</h3>
        <Problem error={difference.error} />
        {data?.notRead && <p>The page could not be read: {data.notRead}.</p>}
        {data && data.part === null && (
          <p className="text-ink-2">Nothing in the template expects this page.</p>
        )}
        {data && data.blocks.length > 0 && (
          <ul>
            {data.blocks.map((block) => (
              <Block key={block.key} block={block} />
            ))}
          </ul>
        )}
        {places.length > 0 && (
          <>
            <h3 className="mt-3">Findings</h3>
            <ul>
              {places.map(({ finding, place }) => (
                <li key={place.fingerprint} className="border-t border-line py-2">
                  <Sentence text={place.message} strength={finding.strength} />
                </li>
              ))}
            </ul>
          </>
        )}
      </div>
    </div>
  )
}
