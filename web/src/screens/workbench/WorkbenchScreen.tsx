import { useQueryClient } from '@tanstack/react-query'
import { useCallback, useState } from 'react'
import { useParams } from 'react-router'
import { everyPart, homePageKey, type Remark, type Template } from '@wickerframe/core'
import type { TemplateDraft } from '@wickerframe/contract'
import { useDraft } from '../../api/queries.ts'
import { Page, Problem, Waiting } from '../../controls/controls.tsx'
import { viewOnDemand } from '../../shell/onDemand.tsx'
import { useAddress } from '../../shell/useAddress.ts'
import { DraftOf, DraftState } from './DraftHead.tsx'
import { useDraftStore } from './draftStore.ts'
import { Notices } from './Notices.tsx'
import { OutlineView } from './OutlineView.tsx'
import { slipKeyOf } from './outlineRows.ts'
import type { PageSources } from './page/pageSources.ts'
import type { FirstCourse } from './firstCourse.ts'
import { useFirstCourse } from './useFirstCourse.ts'
import { useLiveDraft } from './useLiveDraft.ts'
import { usePageSources } from './usePageSources.ts'
import { useProofreading } from './useProofreading.ts'
import { workbenchViews, type View } from './workbenchViews.ts'

// What only some visits need comes when it is opened.
const CommentsView = viewOnDemand(
  async () => (await import('./views/CommentsView.tsx')).CommentsView,
)
const HouseStyleView = viewOnDemand(
  async () => (await import('./views/HouseStyleView.tsx')).HouseStyleView,
)
const CourseSettingsView = viewOnDemand(
  async () => (await import('./views/CourseSettingsView.tsx')).CourseSettingsView,
)
const GradingView = viewOnDemand(async () => (await import('./views/GradingView.tsx')).GradingView)
const LayerView = viewOnDemand(async () => (await import('./views/LayerView.tsx')).LayerView)
const OutcomesView = viewOnDemand(
  async () => (await import('./views/OutcomesView.tsx')).OutcomesView,
)
const ProofreadingView = viewOnDemand(
  async () => (await import('./views/ProofreadingView.tsx')).ProofreadingView,
)
const ReleasePanel = viewOnDemand(
  async () => (await import('./views/ReleasePanel.tsx')).ReleasePanel,
)
const SharedPiecesView = viewOnDemand(
  async () => (await import('./views/SharedPiecesView.tsx')).SharedPiecesView,
)
const VersionsView = viewOnDemand(
  async () => (await import('./views/VersionsView.tsx')).VersionsView,
)

const ViewTabs = ({
  views,
  view,
  hasErrors,
  onView,
}: {
  views: readonly (readonly [View, string])[]
  view: View
  /** Whether proofreading found what stops a release. */
  hasErrors: boolean
  onView: (view: View) => void
}) => (
  <nav aria-label="Of this template" className="mt-1 flex flex-wrap gap-x-4 border-b border-line">
    {views.map(([id, text]) => (
      <button
        key={id}
        type="button"
        aria-current={view === id ? 'page' : undefined}
        onClick={() => onView(id)}
        className={`border-b-2 py-1 ${view === id ? 'border-ink font-semibold' : 'border-transparent text-ink-2'} ${id === 'proofreading' && hasErrors ? 'text-rust' : ''}`}
      >
        {text}
      </button>
    ))}
  </nav>
)

interface ViewProps {
  template: string
  detail: TemplateDraft
  draft: Template
  sources: PageSources
  /** null while it is being proofread. */
  remarks: readonly Remark[] | null
  firstCourse: FirstCourse
  onOpen: (part: string | null) => void
}

const CommentsOf = ({ template, sources, onOpen }: ViewProps) => {
  const { search } = useAddress()
  const row = search.get('part')
  return (
    <CommentsView
      template={template}
      parts={sources.parts}
      part={row === null ? null : slipKeyOf(row)}
      onOpen={onOpen}
    />
  )
}

const LayerOf = ({ template, detail }: ViewProps) => {
  const client = useQueryClient()
  const { revision, waiting } = useDraftStore()
  return (
    <LayerView
      template={detail}
      revision={revision}
      waiting={waiting.length > 0}
      onTaken={() => void client.invalidateQueries({ queryKey: ['template', template] })}
    />
  )
}

const ProofreadingOf = ({ draft, remarks, firstCourse, onOpen }: ViewProps) => {
  const nameOf = (part: string) =>
    part === homePageKey
      ? 'the home page'
      : (everyPart(draft).find(({ key }) => key === part)?.name ?? part)
  return remarks ? (
    <ProofreadingView
      remarks={remarks}
      firstCourse={firstCourse}
      template={draft}
      nameOf={nameOf}
      onOpen={onOpen}
    />
  ) : (
    <Waiting what="the template" />
  )
}

const viewParts: Readonly<Record<View, (props: ViewProps) => React.ReactNode>> = {
  outline: ({ draft, sources, remarks }) => (
    <OutlineView draft={draft} sources={sources} remarks={remarks ?? []} />
  ),
  settings: ({ draft }) => <CourseSettingsView template={draft} />,
  style: ({ draft }) => <HouseStyleView template={draft} />,
  grading: ({ draft, onOpen }) => <GradingView template={draft} onOpen={onOpen} />,
  outcomes: ({ draft, onOpen }) => <OutcomesView template={draft} onOpen={onOpen} />,
  shared: ({ draft, sources }) => <SharedPiecesView template={draft} sources={sources} />,
  layer: (props) => <LayerOf {...props} />,
  proofreading: (props) => <ProofreadingOf {...props} />,
  comments: (props) => <CommentsOf {...props} />,
  versions: ({ detail }) => <VersionsView template={detail} />,
}

/** A draft that is open, with everything that belongs to its template. */
const Workbench = ({ detail, draft }: { detail: TemplateDraft; draft: Template }) => {
  const { search, set } = useAddress()
  const { key, revision, waiting, released } = useDraftStore()
  const [releasing, setReleasing] = useState(search.get('release') !== null && detail.mayRelease)
  const remarks = useProofreading(draft)
  const asked = search.get('view') ?? 'outline'
  const firstCourse = useFirstCourse(draft, releasing || asked === 'proofreading')
  const sources = usePageSources(draft)
  const onOpen = useCallback((part: string | null) => set({ part, view: null }), [set])
  const views = workbenchViews(detail, remarks)
  const view = views.find(([id]) => id === asked)?.[0] ?? 'outline'
  const latest = detail.versions[0]?.number ?? 0
  return (
    <Page
      title={draft.title}
      above={<DraftOf draft={draft} above={detail.above} />}
      beside={
        <DraftState
          latest={latest}
          mayRelease={detail.mayRelease}
          releasing={releasing}
          onRelease={() => setReleasing(true)}
        />
      }
    >
      {releasing && (
        <ReleasePanel
          template={key}
          revision={revision}
          latest={latest}
          remarks={remarks ?? []}
          firstCourse={firstCourse}
          waiting={waiting.length > 0}
          onReleased={released}
          onProofread={() => {
            setReleasing(false)
            set({ view: 'proofreading' })
          }}
          onClose={() => setReleasing(false)}
        />
      )}
      <Notices />
      <ViewTabs
        views={views}
        view={view}
        hasErrors={(remarks ?? []).some((remark) => remark.severity === 'error')}
        onView={(id) => set({ view: id === 'outline' ? null : id })}
      />
      {viewParts[view]({ template: key, detail, draft, sources, remarks, firstCourse, onOpen })}
    </Page>
  )
}

export const WorkbenchScreen = () => {
  const { key = '' } = useParams()
  const loaded = useDraft(key)
  useLiveDraft(loaded.data)
  const draft = useDraftStore((store) => (store.key === key ? store.draft : null))
  if (loaded.data && draft) return <Workbench detail={loaded.data} draft={draft} />
  return (
    <Page title="Template">
      {loaded.error ? <Problem error={loaded.error} /> : <Waiting what="the template" />}
    </Page>
  )
}
