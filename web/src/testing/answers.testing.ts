import { emptyTemplate, type Template } from '@wickerframe/core'
import type {
  ConformanceRow,
  CourseSummary,
  RunDetail,
  RunTask,
  TaskState,
  TemplateDraft,
  TemplateSummary,
} from '@wickerframe/contract'

/** A course as it stands in lists. */
export const courseSummary = (id: number, more: Partial<CourseSummary> = {}): CourseSummary => ({
  id,
  platformId: `p${id}`,
  code: `NAV ${100 + id}`,
  title: `Navigation ${id}`,
  term: 'autumn-2026',
  department: 'NAV',
  modality: 'on-campus',
  weeks: 16,
  status: 'teaching',
  classSections: ['01'],
  classSectionKind: 'own',
  instructors: [{ name: 'Noor Vesterby', email: 'noor@kestrelsound.example' }],
  assistants: [],
  owner: 'noor@kestrelsound.example',
  state: 'shell',
  template: null,
  readAt: '2026-09-16T09:00:00Z',
  check: null,
  ...more,
})

/** A course as it stands in the weave. */
export const conformanceRow = (id: number, more: Partial<ConformanceRow> = {}): ConformanceRow => ({
  id,
  platformId: `ks-${id}`,
  code: `NAV ${100 + id}`,
  title: `Navigation ${id}`,
  classSections: ['01'],
  department: 'NAV',
  weeks: 16,
  template: 'Harbour Standard',
  owner: 'Sunniva Drake',
  readiness: 'ready',
  openMusts: 0,
  openShoulds: 0,
  strands: 'mm',
  ...more,
})

export const templateSummary = (
  key: string,
  more: Partial<TemplateSummary> = {},
): TemplateSummary => ({
  key,
  title: `The ${key}`,
  summary: '',
  appliesTo: { modalities: [], departments: [], weeks: [] },
  above: null,
  versions: [
    {
      number: 1,
      note: 'First',
      releasedAt: '2026-08-01T00:00:00Z',
      by: 'Quill',
      retired: false,
      uses: [],
      courses: 0,
    },
  ],
  draftRevision: 1,
  changesSinceRelease: 0,
  courses: 0,
  openComments: 0,
  mayEdit: true,
  mayRelease: true,
  ...more,
})

export const templateDraft = (
  draft: Template = emptyTemplate('small', 'Small'),
  more: Partial<TemplateDraft> = {},
): TemplateDraft => ({
  ...templateSummary(draft.key),
  draft,
  savedAt: '2026-09-16T12:00:00Z',
  upper: null,
  contributors: [],
  designers: [],
  ...more,
})

const noTasks: Record<TaskState, number> = {
  'to-plan': 0,
  planned: 0,
  waiting: 0,
  'at-work': 0,
  sent: 0,
  held: 0,
  done: 0,
  failed: 0,
  cancelled: 0,
}

export const runTask = (course: number, more: Partial<RunTask> = {}): RunTask => ({
  id: course,
  course,
  platformId: `p${course}`,
  code: `NAV ${100 + course}`,
  title: `Navigation ${course}`,
  classSections: ['01'],
  state: 'done',
  attempts: 1,
  message: '',
  finishedAt: null,
  renames: [],
  mends: [],
  plan: null,
  ...more,
})

/** A run whose counts are those of its tasks. */
export const runDetail = (tasks: readonly RunTask[], more: Partial<RunDetail> = {}): RunDetail => {
  const counts = { ...noTasks }
  for (const { state } of tasks) counts[state] += 1
  return {
    id: 3,
    kind: 'renames',
    state: 'running',
    title: 'New names for the weeks',
    by: 'Quill',
    createdAt: '2026-09-16T09:00:00Z',
    finishedAt: null,
    counts,
    asOf: null,
    order: null,
    rule: null,
    standing: false,
    tasks: [...tasks],
    waitsFor: null,
    perSecond: null,
    secondsLeft: null,
    ...more,
  }
}
