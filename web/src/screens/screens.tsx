import type { ReactNode } from 'react'
import type { Me } from '@wickerframe/contract'
import type { Capability } from '@wickerframe/contract/capabilities'
import { screenOnDemand } from '../shell/onDemand.tsx'

// The code of a screen comes when it is opened.
const ConformanceScreen = screenOnDemand(
  async () => (await import('./conformance/ConformanceScreen.tsx')).ConformanceScreen,
)
const MendsScreen = screenOnDemand(
  async () => (await import('./conformance/MendsScreen.tsx')).MendsScreen,
)
const CourseScreen = screenOnDemand(
  async () => (await import('./course/CourseScreen.tsx')).CourseScreen,
)
const CoursesScreen = screenOnDemand(
  async () => (await import('./courses/CoursesScreen.tsx')).CoursesScreen,
)
const NewRolloutScreen = screenOnDemand(
  async () => (await import('./rollouts/NewRolloutScreen.tsx')).NewRolloutScreen,
)
const RolloutsScreen = screenOnDemand(
  async () => (await import('./rollouts/RolloutsScreen.tsx')).RolloutsScreen,
)
const RunScreen = screenOnDemand(async () => (await import('./rollouts/RunScreen.tsx')).RunScreen)
const TemplatesScreen = screenOnDemand(
  async () => (await import('./templates/TemplatesScreen.tsx')).TemplatesScreen,
)
const HistoryScreen = screenOnDemand(
  async () => (await import('./conformance/history/HistoryScreen.tsx')).HistoryScreen,
)
const SchedulesScreen = screenOnDemand(
  async () => (await import('./schedules/SchedulesScreen.tsx')).SchedulesScreen,
)
const AheadScreen = screenOnDemand(
  async () => (await import('./conformance/ahead/AheadScreen.tsx')).AheadScreen,
)
const RulesScreen = screenOnDemand(
  async () => (await import('./conformance/rules/RulesScreen.tsx')).RulesScreen,
)
const WaiversScreen = screenOnDemand(
  async () => (await import('./waivers/WaiversScreen.tsx')).WaiversScreen,
)
const TodayScreen = screenOnDemand(
  async () => (await import('./today/TodayScreen.tsx')).TodayScreen,
)
const AuditScreen = screenOnDemand(
  async () => (await import('./audit/AuditScreen.tsx')).AuditScreen,
)
const PeopleScreen = screenOnDemand(
  async () => (await import('./people/PeopleScreen.tsx')).PeopleScreen,
)
const AccountScreen = screenOnDemand(
  async () => (await import('./account/AccountScreen.tsx')).AccountScreen,
)
const LibraryScreen = screenOnDemand(
  async () => (await import('./library/LibraryScreen.tsx')).LibraryScreen,
)
const NextTermScreen = screenOnDemand(
  async () => (await import('./rollouts/NextTermScreen.tsx')).NextTermScreen,
)
const NamesScreen = screenOnDemand(
  async () => (await import('./names/NamesScreen.tsx')).NamesScreen,
)
const NewTemplateScreen = screenOnDemand(
  async () => (await import('./newTemplate/NewTemplateScreen.tsx')).NewTemplateScreen,
)
const TermScreen = screenOnDemand(async () => (await import('./terms/TermScreen.tsx')).TermScreen)
const TermsScreen = screenOnDemand(
  async () => (await import('./terms/TermsScreen.tsx')).TermsScreen,
)
export const WorkbenchScreen = screenOnDemand(
  async () => (await import('./workbench/WorkbenchScreen.tsx')).WorkbenchScreen,
)

const PageScreen = screenOnDemand(
  async () => (await import('./workbench/PageScreen.tsx')).PageScreen,
)

/** One address of the application. */
export interface Screen {
  path: string
  /** What somebody must be able to do to see it. */
  needs: Capability
  /** What it is called in the navigation, where it stands there. */
  name?: string
  /** Reached from the person’s own menu. */
  ofPerson?: true
  show: (me: Me) => ReactNode
}

/** Every screen, in the order of the navigation; who may not see one is told so. */
export const screens: readonly Screen[] = [
  { path: '/today', name: 'Today', needs: 'see college', show: (me) => <TodayScreen me={me} /> },
  {
    path: '/templates',
    name: 'Templates',
    needs: 'see templates',
    show: (me) => <TemplatesScreen me={me} />,
  },
  { path: '/templates/new', needs: 'keep templates', show: () => <NewTemplateScreen /> },
  { path: '/templates/:key', needs: 'see templates', show: () => <WorkbenchScreen /> },
  { path: '/templates/:key/pages/:part', needs: 'see templates', show: () => <PageScreen /> },
  {
    path: '/courses',
    name: 'Courses',
    needs: 'see courses',
    show: (me) => <CoursesScreen me={me} />,
  },
  { path: '/courses/:id', needs: 'see courses', show: (me) => <CourseScreen me={me} /> },
  {
    path: '/rollouts',
    name: 'Rollouts',
    needs: 'see college',
    show: (me) => <RolloutsScreen me={me} />,
  },
  { path: '/rollouts/new', needs: 'roll out', show: () => <NewRolloutScreen /> },
  { path: '/rollouts/next-term', needs: 'keep courses', show: (me) => <NextTermScreen me={me} /> },
  { path: '/rollouts/:run', needs: 'see courses', show: (me) => <RunScreen me={me} /> },
  {
    path: '/conformance',
    name: 'Conformance',
    needs: 'see college',
    show: (me) => <ConformanceScreen me={me} />,
  },
  { path: '/conformance/days', needs: 'see college', show: () => <HistoryScreen /> },
  {
    path: '/conformance/schedules',
    needs: 'see college',
    show: (me) => <SchedulesScreen me={me} />,
  },
  { path: '/conformance/ahead', needs: 'see college', show: (me) => <AheadScreen me={me} /> },
  { path: '/conformance/rules', needs: 'see college', show: (me) => <RulesScreen me={me} /> },
  { path: '/conformance/waivers', needs: 'see college', show: (me) => <WaiversScreen me={me} /> },
  { path: '/conformance/mends', needs: 'mend courses', show: () => <MendsScreen /> },
  {
    path: '/library',
    name: 'Library',
    needs: 'see college',
    show: (me) => <LibraryScreen me={me} />,
  },
  { path: '/names', name: 'Names', needs: 'rename', show: () => <NamesScreen /> },
  { path: '/terms', name: 'Terms', needs: 'see college', show: (me) => <TermsScreen me={me} /> },
  { path: '/terms/:code', needs: 'see college', show: (me) => <TermScreen me={me} /> },
  {
    path: '/account',
    name: 'Your account',
    needs: 'use account',
    ofPerson: true,
    show: (me) => <AccountScreen me={me} />,
  },
  {
    path: '/people',
    name: 'People: who may sign in',
    needs: 'manage people',
    ofPerson: true,
    show: () => <PeopleScreen />,
  },
  {
    path: '/audit',
    name: 'Audit: who did what',
    needs: 'read audit',
    ofPerson: true,
    show: () => <AuditScreen />,
  },
]
