import type { Template } from '../template/index.ts'

/** A template with nothing in it but a home page that names the course. */
export const emptyTemplate = (key: string, title: string): Template => ({
  schema: 'wickerframe.template/1',
  key,
  title,
  summary: '',
  halfBuilt: false,
  appliesTo: { modalities: [], departments: [], weeks: [] },
  naming: { courseName: '{code} {title} · {term}', courseLabel: '{code}' },
  opening: { follow: 'week-by-week', leadDays: 0 },
  home: {
    name: '{code} home',
    strength: 'must',
    blocks: [
      {
        kind: 'title',
        key: 'course-title',
        element: 'course-title',
        strength: 'must',
        text: '{code} {title}',
      },
    ],
  },
  navigation: [],
  settings: {},
  grading: { weighted: true, shown: 'rolled-up', categories: [] },
  rubrics: [],
  outcomes: [],
  parts: [],
  houseTexts: [],
  assets: [],
  files: [],
  keptBlocks: [],
  policies: [],
})

/** A copy of a template as a draft of its own, with no history; what it is built on stays. */
export const copyTemplate = (template: Template, key: string, title: string): Template => ({
  ...template,
  key,
  title,
  version: undefined,
})
