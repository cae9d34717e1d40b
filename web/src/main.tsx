import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { BrowserRouter, Navigate, Route, Routes } from 'react-router'
import { ApiError, call } from './api/client.ts'
import { useMe } from './api/queries.ts'
import { Button, Problem, Waiting } from './controls/controls.tsx'
import { ConformanceScreen } from './screens/conformance/ConformanceScreen.tsx'
import { MendsScreen } from './screens/conformance/MendsScreen.tsx'
import { CourseScreen } from './screens/course/CourseScreen.tsx'
import { CoursesScreen } from './screens/courses/CoursesScreen.tsx'
import { NewRolloutScreen } from './screens/rollouts/NewRolloutScreen.tsx'
import { RolloutsScreen } from './screens/rollouts/RolloutsScreen.tsx'
import { RunScreen } from './screens/rollouts/RunScreen.tsx'
import { TemplatesScreen } from './screens/templates/TemplatesScreen.tsx'
import { TodayScreen } from './screens/today/TodayScreen.tsx'
import { screenOnDemand } from './shell/screenOnDemand.tsx'
import { Shell } from './shell/Shell.tsx'
import { SignIn } from './shell/SignIn.tsx'
import './styles.css'

// What only some visits need comes when it is opened; the page editor is large.
const AuditScreen = screenOnDemand(
  async () => (await import('./screens/audit/AuditScreen.tsx')).AuditScreen,
)
const LibraryScreen = screenOnDemand(
  async () => (await import('./screens/library/LibraryScreen.tsx')).LibraryScreen,
)
const NextTermScreen = screenOnDemand(
  async () => (await import('./screens/rollouts/NextTermScreen.tsx')).NextTermScreen,
)
const NamesScreen = screenOnDemand(
  async () => (await import('./screens/names/NamesScreen.tsx')).NamesScreen,
)
const NewTemplateScreen = screenOnDemand(
  async () => (await import('./screens/newTemplate/NewTemplateScreen.tsx')).NewTemplateScreen,
)
const TermScreen = screenOnDemand(
  async () => (await import('./screens/terms/TermScreen.tsx')).TermScreen,
)
const TermsScreen = screenOnDemand(
  async () => (await import('./screens/terms/TermsScreen.tsx')).TermsScreen,
)
const WorkbenchScreen = screenOnDemand(
  async () => (await import('./screens/workbench/WorkbenchScreen.tsx')).WorkbenchScreen,
)

const client = new QueryClient({
  defaultOptions: {
    // Asked for also while the browser thinks itself offline: then it fails, and says so, and does not wait for ever.
    mutations: { networkMode: 'always' },
    queries: {
      networkMode: 'always',
      retry: (count, cause) =>
        count < 2 &&
        !(cause instanceof ApiError && cause.body.status >= 400 && cause.body.status < 500),
      staleTime: 2000,
    },
  },
})

// The workbench opened by its address: its code and its draft are asked for at once, not one after the other.
const opened = /^\/templates\/([a-z0-9-]+)$/.exec(window.location.pathname)?.[1]
if (opened && opened !== 'new') {
  void WorkbenchScreen.fetchCode()
  void client.prefetchQuery({
    queryKey: ['template', opened],
    queryFn: () => call('readDraft', { at: { template: opened } }),
    retry: false,
  })
}

const Application = () => {
  const me = useMe()
  if (me.isPending) return <Waiting what="who you are" />
  if (me.isError)
    return (
      <main id="main" className="mx-auto mt-24 max-w-md">
        <Problem error={me.error} />
        <div className="mt-4">
          <Button shape="main" disabled={me.isFetching} onClick={() => void me.refetch()}>
            Try again
          </Button>
        </div>
      </main>
    )
  if (!me.data) return <SignIn />
  const home = me.data.role === 'instructor' ? '/courses' : '/today'
  return (
    <Routes>
      <Route element={<Shell me={me.data} />}>
        <Route path="/today" element={<TodayScreen />} />
        <Route path="/templates" element={<TemplatesScreen me={me.data} />} />
        <Route path="/templates/new" element={<NewTemplateScreen />} />
        <Route path="/templates/:key" element={<WorkbenchScreen />} />
        <Route path="/courses" element={<CoursesScreen me={me.data} />} />
        <Route path="/courses/:id" element={<CourseScreen me={me.data} />} />
        <Route path="/rollouts" element={<RolloutsScreen me={me.data} />} />
        <Route path="/rollouts/new" element={<NewRolloutScreen />} />
        <Route path="/rollouts/next-term" element={<NextTermScreen me={me.data} />} />
        <Route path="/rollouts/:run" element={<RunScreen me={me.data} />} />
        <Route path="/conformance" element={<ConformanceScreen me={me.data} />} />
        <Route path="/conformance/mends" element={<MendsScreen />} />
        <Route path="/library" element={<LibraryScreen me={me.data} />} />
        <Route path="/names" element={<NamesScreen />} />
        <Route path="/terms" element={<TermsScreen me={me.data} />} />
        <Route path="/terms/:code" element={<TermScreen me={me.data} />} />
        {me.data.role === 'administrator' && <Route path="/audit" element={<AuditScreen />} />}
        <Route path="*" element={<Navigate to={home} replace />} />
      </Route>
    </Routes>
  )
}

const root = document.getElementById('root')
if (root)
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={client}>
        <BrowserRouter>
          <Application />
        </BrowserRouter>
      </QueryClientProvider>
    </StrictMode>,
  )
