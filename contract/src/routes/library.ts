import { z } from 'zod'
import {
  Asset,
  HouseText,
  ImageSet,
  KeptBlock,
  Rubric,
  Template,
  TemplateFile,
} from '@wickerframe/core'
import { csv } from '../route.ts'
import type { Routes } from './asked.ts'

/** Which list of a template holds what the library has of a kind. */
export const templateListOf = {
  'house-text': 'houseTexts',
  image: 'assets',
  file: 'files',
  rubric: 'rubrics',
  block: 'keptBlocks',
} as const satisfies Record<string, keyof Template>
/** Kinds that templates hold as well. */
export type SharedKind = keyof typeof templateListOf
export const sharedKinds = Object.keys(templateListOf) as SharedKind[]
/** What the library holds; sets of images are its own. */
export const libraryKinds = [
  'house-text',
  'image',
  'file',
  'rubric',
  'block',
  'image-set',
] as const satisfies (SharedKind | 'image-set')[]
export type LibraryKind = (typeof libraryKinds)[number]
/** What stands in the library, by kind: the same documents that templates hold, and sets of images. */
export const LibraryPut = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('house-text'),
    was: z.number().int().min(1).nullable(),
    document: HouseText,
  }),
  z.strictObject({
    kind: z.literal('image'),
    was: z.number().int().min(1).nullable(),
    document: Asset,
  }),
  z.strictObject({
    kind: z.literal('file'),
    was: z.number().int().min(1).nullable(),
    document: TemplateFile,
  }),
  z.strictObject({
    kind: z.literal('rubric'),
    was: z.number().int().min(1).nullable(),
    document: Rubric,
  }),
  z.strictObject({
    kind: z.literal('block'),
    was: z.number().int().min(1).nullable(),
    document: KeptBlock,
  }),
  z.strictObject({
    kind: z.literal('image-set'),
    was: z.number().int().min(1).nullable(),
    document: ImageSet,
  }),
])
export type LibraryPut = z.output<typeof LibraryPut>
const LibraryDocument = z.union([HouseText, Asset, TemplateFile, Rubric, KeptBlock, ImageSet])
export const LibraryEntry = z.strictObject({
  kind: z.enum(libraryKinds),
  key: z.string(),
  title: z.string(),
  revision: z.number(),
  savedAt: z.string(),
  by: z.string(),
  document: LibraryDocument,

  /** Templates whose draft holds it, and how many of them hold an older state. */
  templates: z.array(z.strictObject({ key: z.string(), title: z.string(), current: z.boolean() })),

  /** Courses whose version holds it, and how many of them show an older wording. */
  courses: z.number(),
  coursesOutOfDate: z.number(),
})
export type LibraryEntry = z.output<typeof LibraryEntry>

export const libraryRoutes = {
  readRubricFile: {
    method: 'post',
    path: '/api/rubric-file',
    summary: 'Read a rubric from a CSV file; nothing is kept',
    may: 'edit drafts',
    body: csv,
    answer: z.strictObject({ criteria: Rubric.shape['criteria'] }),
  },
  listLibrary: {
    method: 'get',
    path: '/api/library',
    summary:
      'House texts, images and sets of them, files, rubrics and blocks, with where each is used',
    may: 'see college',
    answer: z.array(LibraryEntry),
  },
  putIntoLibrary: {
    method: 'post',
    path: '/api/library',
    summary: 'Put something into the library, or correct it',
    may: 'keep library',
    body: LibraryPut,
    answer: z.strictObject({ revision: z.number() }),
  },
} as const satisfies Routes
