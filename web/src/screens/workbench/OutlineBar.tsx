import type { CourseSummary } from '@wickerframe/contract'
import { itemKinds, kindWords, strengths, type ItemKind } from '@wickerframe/core'
import { Pick } from '../../controls/controls.tsx'
import { Menu } from '../../controls/menu.tsx'
import type { useAddress } from '../../shell/useAddress.ts'
import { CoursePick } from './CoursePick.tsx'

/** As it is designed; worked out for one course; for kinds of courses side by side. */
export type Show = 'designed' | 'course' | 'variants'
const shows = [
  ['designed', 'As designed'],
  ['course', 'As this course'],
  ['variants', 'Side by side'],
] as const satisfies readonly (readonly [Show, string])[]

export interface OutlineFilter {
  text: string
  kind: string
  strength: string
}

type SetAddress = ReturnType<typeof useAddress>['set']

const Filters = ({ filter, set }: { filter: OutlineFilter; set: SetAddress }) => (
  <>
    <input
      aria-label="Find in the outline"
      placeholder="Find …"
      className="w-28 border border-line-strong bg-sheet px-2 py-1"
      value={filter.text}
      onChange={(event) => set({ find: event.target.value || null })}
    />
    <Pick
      inline
      label=""
      aria-label="Only this kind"
      value={filter.kind}
      onChange={(event) => set({ kind: event.target.value || null })}
      options={[
        { value: '', text: 'every kind' },
        ...['module', ...itemKinds, 'exception', 'element'].map((kind) => ({
          value: kind,
          text: kindWords(kind),
        })),
      ]}
    />
    <Pick
      inline
      label=""
      aria-label="Only this strength"
      value={filter.strength}
      onChange={(event) => set({ strength: event.target.value || null })}
      options={[
        { value: '', text: 'any strength' },
        ...strengths.map((strength) => ({ value: strength, text: strength })),
      ]}
    />
  </>
)

/** Above the outline: for which course it is worked out, how it is shown, what of it, and what can be added. */
export const OutlineBar = ({
  fitting,
  course,
  show,
  filter,
  set,
  onAdd,
}: {
  fitting: readonly CourseSummary[]
  course: string
  show: Show
  filter: OutlineFilter
  set: SetAddress
  /** null: nothing may be added. */
  onAdd: ((what: ItemKind | 'module' | 'list') => void) | null
}) => {
  return (
    <div className="mt-2 flex flex-wrap items-center gap-x-4 gap-y-2">
      <CoursePick fitting={fitting} course={course} onChoose={(id) => set({ course: id })} />
      <span className="inline-flex border border-line-strong" role="group" aria-label="Show">
        {shows.map(([id, text]) => (
          <button
            key={id}
            type="button"
            aria-pressed={show === id}
            onClick={() => set({ show: id === 'designed' ? null : id })}
            className={`px-3 py-1 ${show === id ? 'bg-ink text-sheet' : 'bg-sheet'}`}
          >
            {text}
          </button>
        ))}
      </span>
      {show === 'designed' && <Filters filter={filter} set={set} />}
      {show === 'designed' && onAdd && (
        <Menu
          label="Add a part"
          groups={[
            {
              items: (['module', ...itemKinds] as const).map((kind) => ({
                value: kind,
                text: kindWords(kind),
              })),
            },
            { items: [{ value: 'list' as const, text: 'a list of parts …' }] },
          ]}
          onPick={onAdd}
        />
      )}
    </div>
  )
}
