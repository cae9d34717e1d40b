import { useQuery } from '@tanstack/react-query'
import { useMemo } from 'react'
import { everyCourseItem, type CheckResult, type Finding } from '@wickerframe/core'
import type { CourseDetail } from '@wickerframe/contract'
import { addressOf, call } from '../../api/client.ts'
import { Choice, plural, Problem, Sentence } from '../../controls/controls.tsx'
import { useAddress } from '../../shell/useAddress.ts'
import { openOnPages, urgentFirst, type OpenOnPage } from './openOnPages.ts'

/** The findings of a page, told of that page alone. */
const findingsOn = (result: CheckResult | null, page: string): Finding[] =>
  result?.findings.flatMap((finding) => {
    if (finding.strength === 'may') return []
    const places = finding.places.filter(({ place, waived }) => place.foundId === page && !waived)
    return places.map((place) => ({ ...finding, message: place.message, places: [place] }))
  }) ?? []

const openWords = ({ musts, shoulds }: OpenOnPage): string =>
  [
    ...(musts > 0 ? [plural(musts, 'must')] : []),
    ...(shoulds > 0 ? [plural(shoulds, 'should')] : []),
  ].join(', ')

/** The pages of a course, the most urgent first; each with what departs marked in it, and the remarks in its margin. */
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
  const { snapshot, result } = course
  const open = useMemo(() => openOnPages(result), [result])
  const pages = useMemo(
    () =>
      urgentFirst(
        snapshot ? everyCourseItem(snapshot).filter(({ item }) => item.html !== null) : [],
        open,
      ),
    [snapshot, open],
  )
  const shown = chosen || pages[0]?.item.id || ''
  const difference = useQuery({
    queryKey: ['page-difference', course.id, shown, asOf],
    queryFn: () =>
      call('pageDifference', {
        at: { course: course.id, item: encodeURIComponent(shown) },
        query: { asOf },
      }),
    enabled: shown !== '' && course.template !== null,
  })
  const findings = findingsOn(result, shown)
  const at = { course: course.id, item: shown }
  const { data } = difference
  return (
    <div className="grid gap-4 lg:grid-cols-[17rem_minmax(0,1fr)]">
      <ul className="max-h-[80vh] overflow-y-auto" tabIndex={0} aria-label="Pages">
        {pages.map(({ item, module }) => {
          const here = open.get(item.id)
          return (
            <li key={item.id}>
              <button
                type="button"
                aria-current={item.id === shown}
                className={`flex w-full items-baseline gap-2 px-2 py-0.5 text-left ${item.id === shown ? 'bg-sheet font-semibold' : ''}`}
                title={`${module?.name ?? ''} › ${item.name}`}
                onClick={() => onChoose(item.id)}
              >
                <span className="truncate">{item.name}</span>
                {here && (
                  <span
                    className={`ml-auto shrink-0 text-[12px] ${here.musts > 0 ? 'text-rust' : 'text-straw'}`}
                  >
                    {openWords(here)}
                  </span>
                )}
              </button>
            </li>
          )
        })}
      </ul>
      <div>
        <div className="mb-1 flex flex-wrap items-center gap-2">
          <Choice pressed={!plain} onClick={() => set({ plain: null })}>
            with remarks in the margin
          </Choice>
          <Choice pressed={plain} onClick={() => set({ plain: '1' })}>
            as students see it
          </Choice>
          {data && data.part === null && (
            <span className="text-ink-2">Nothing in the template expects this page.</span>
          )}
          {findings.length > 0 && (
            <button
              type="button"
              className="ml-auto text-tide underline underline-offset-2"
              onClick={() => set({ show: 'mend', page: null })}
            >
              mend, raise or waive them
            </button>
          )}
        </div>
        <Problem error={difference.error} />
        {data?.notRead && <p>The page could not be read: {data.notRead}.</p>}
        {findings.length > 0 && (
          <ul aria-label="Findings of this page" className="mb-2 max-h-40 overflow-y-auto">
            {findings.map((finding) => (
              <li
                key={finding.rule + (finding.places[0]?.fingerprint ?? '')}
                className="grid grid-cols-[4rem_minmax(0,1fr)] items-baseline border-t border-line py-0.5"
              >
                <span
                  className={`text-[13px] font-semibold ${finding.strength === 'must' ? 'text-rust' : 'text-straw'}`}
                >
                  {finding.strength}
                </span>
                <span>
                  <Sentence text={finding.message} strength={finding.strength} />
                </span>
              </li>
            ))}
          </ul>
        )}
        {shown ? (
          <iframe
            title={
              plain ? 'The page as students would see it' : 'The page with remarks in its margin'
            }
            sandbox=""
            className="h-[72vh] w-full border border-line bg-sheet"
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
    </div>
  )
}
