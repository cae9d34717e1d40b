import { z } from 'zod'
import { Key, TakeOverNote, Template, TemplateChange, TemplateEdit } from '@wickerframe/core'
import { Done, large, type Routes } from './asked.ts'

export const DraftEdits = z.strictObject({
  revision: z.number().int().min(0),
  edits: z.array(TemplateEdit).min(1).max(500),
})
export const Release = z.strictObject({
  revision: z.number().int().min(0),
  note: z.string().max(1000).default(''),
})
export const TakeOver = z.strictObject({
  revision: z.number().int().min(0),
  version: z.number().int().min(1).describe('Of the template it is built on'),
  dry: z.boolean().default(false),
})
export const UseVersion = z.strictObject({
  uses: z
    .array(
      z.strictObject({
        department: z.string().min(1).max(40),
        modality: z.string().min(1).max(40),
        inUse: z.boolean(),
      }),
    )
    .min(1)
    .max(200),
})
export const RetireVersion = z.strictObject({ retired: z.boolean() })
export const NewComment = z.strictObject({
  part: Key.nullable().default(null),
  answersTo: z.number().int().positive().nullable().default(null),
  text: z.string().trim().min(1).max(4000),
})
export const CloseComment = z.strictObject({ closed: z.boolean() })
export const LetContribute = z.strictObject({ email: z.email().max(200), may: z.boolean() })
export const VersionSummary = z.strictObject({
  number: z.number(),
  releasedAt: z.string(),
  by: z.string(),
  note: z.string(),
  retired: z.boolean(),

  /** Departments and modalities for which it is the one in use. */
  uses: z.array(z.strictObject({ department: z.string(), modality: z.string() })),

  /** Courses judged by it. */
  courses: z.number(),
})
export type VersionSummary = z.output<typeof VersionSummary>
export const TemplateSummary = z.strictObject({
  key: z.string(),
  title: z.string(),
  summary: z.string(),
  appliesTo: Template.shape['appliesTo'],

  /** What it is built on, and the newest version of that. */
  above: z
    .strictObject({ key: z.string(), title: z.string(), version: z.number(), newest: z.number() })
    .nullable(),

  /** Newest first. */
  versions: z.array(VersionSummary),
  draftRevision: z.number(),
  changesSinceRelease: z.number(),
  courses: z.number(),
  openComments: z.number(),
  mayEdit: z.boolean(),
  mayRelease: z.boolean(),
})
export type TemplateSummary = z.output<typeof TemplateSummary>
export const TemplateDraft = TemplateSummary.extend({
  draft: Template,
  savedAt: z.string(),

  /** The released version the layer is built on; null for a template of its own. */
  upper: Template.nullable(),
  contributors: z.array(z.strictObject({ name: z.string(), email: z.string() })),

  /** Who looks after it: each is told what another changes. */
  designers: z.array(z.strictObject({ name: z.string(), email: z.string() })),
})
export type TemplateDraft = z.output<typeof TemplateDraft>
export const TemplateComment = z.strictObject({
  id: z.number(),
  part: z.string().nullable(),
  answersTo: z.number().nullable(),
  text: z.string(),
  at: z.string(),
  by: z.string(),
  closedAt: z.string().nullable(),
  closedBy: z.string().nullable(),
})
export type TemplateComment = z.output<typeof TemplateComment>
export const TakenOverDraft = z.strictObject({
  revision: z.number(),
  draft: Template,
  brings: z.array(TemplateChange),
  notes: z.array(TakeOverNote),
})
export type TakenOverDraft = z.output<typeof TakenOverDraft>

/** A version by its number, or the draft. */
const VersionOrDraft = z.union([z.literal('draft'), z.coerce.number().int().positive()])

export const templateRoutes = {
  listTemplates: {
    method: 'get',
    path: '/api/templates',
    summary: 'Templates',
    may: 'see templates',
    answer: z.array(TemplateSummary),
  },
  addTemplate: {
    method: 'post',
    path: '/api/templates',
    summary: 'Bring in a template document as a new draft',
    may: 'keep templates',
    body: Template,
    answer: z.strictObject({ key: z.string() }),
    limits: large,
  },
  readDraft: {
    method: 'get',
    path: '/api/templates/:template',
    summary: 'A template’s draft',
    may: 'see templates',
    answer: TemplateDraft,
  },
  readVersion: {
    method: 'get',
    path: '/api/templates/:template/versions/:version',
    summary: 'A released version',
    may: 'see templates',
    answer: Template,
  },
  editDraft: {
    method: 'post',
    path: '/api/templates/:template/edits',
    summary: 'Edit the draft',
    may: 'edit drafts',
    body: DraftEdits,
    answer: z.strictObject({
      revision: z.number(),
      savedAt: z.string().describe('By the clock of the institution'),
      changesSinceRelease: z.number(),
      draft: Template,
    }),
  },
  draftRevision: {
    method: 'get',
    path: '/api/templates/:template/revision',
    summary: 'The revision of a draft, to see whether somebody else edited it',
    may: 'see templates',
    answer: z.strictObject({ revision: z.number() }),
  },
  compareVersions: {
    method: 'get',
    path: '/api/templates/:template/compare',
    summary: 'What differs between two versions, or a version and the draft',
    may: 'see templates',
    query: z.strictObject({ from: VersionOrDraft, to: VersionOrDraft.default('draft') }),
    answer: z.array(TemplateChange),
  },
  takeOver: {
    method: 'post',
    path: '/api/templates/:template/take-over',
    summary:
      'Bring a newer version of the layer above into this layer’s draft; dry: only say what it brings',
    may: 'edit drafts',
    body: TakeOver,
    answer: TakenOverDraft,
  },
  useVersion: {
    method: 'post',
    path: '/api/templates/:template/versions/:version/use',
    summary: 'Say for which departments and modalities a version is the one in use',
    may: 'keep templates',
    body: UseVersion,
    answer: Done,
  },
  retireVersion: {
    method: 'post',
    path: '/api/templates/:template/versions/:version/retire',
    summary: 'Retire a version, or bring it back',
    may: 'keep templates',
    body: RetireVersion,
    answer: Done,
  },
  letLookAfter: {
    method: 'post',
    path: '/api/templates/:template/designers',
    summary: 'Let a designer look after a template with others, or no longer',
    may: 'keep templates',
    body: LetContribute,
    answer: Done,
  },
  letContribute: {
    method: 'post',
    path: '/api/templates/:template/contributors',
    summary: 'Let somebody contribute to a template, or no longer',
    may: 'keep templates',
    body: LetContribute,
    answer: Done,
  },
  listComments: {
    method: 'get',
    path: '/api/templates/:template/comments',
    summary: 'Comments on a template',
    may: 'see templates',
    answer: z.array(TemplateComment),
  },
  addComment: {
    method: 'post',
    path: '/api/templates/:template/comments',
    summary: 'Comment on a part, or answer a comment',
    may: 'comment',
    body: NewComment,
    answer: z.strictObject({ id: z.number() }),
  },
  closeComment: {
    method: 'post',
    path: '/api/templates/:template/comments/:comment/close',
    summary: 'Close a comment, or open it again',
    may: 'comment',
    body: CloseComment,
    answer: Done,
  },
  releaseDraft: {
    method: 'post',
    path: '/api/templates/:template/release',
    summary: 'Release the draft as a version',
    may: 'keep templates',
    body: Release,
    answer: z.strictObject({ version: z.number() }),
  },
} as const satisfies Routes
