import { z } from 'zod'
import {
  nameVerdicts,
  reasonWords,
  smallDifferences,
  type InferredFormat,
  type NameJudgement,
} from '@wickerframe/core'

/** One line of what `names` prints. */
export const JudgedName = z.strictObject({
  name: z.string().describe('As it was given'),
  verdict: z.enum(nameVerdicts),
  fields: z
    .array(
      z.strictObject({
        field: z.string(),
        state: z
          .enum(['right', 'wrong', 'absent'])
          .describe(
            'right also where nothing is known that it should say; absent also where the prompt stands',
          ),
        text: z.string().describe('The exact words of the name'),
        expected: z
          .string()
          .nullable()
          .describe('What should stand there, where it is known and does not'),
      }),
    )
    .describe('In the order of the format; empty where nothing could be told'),
  differences: z
    .array(z.enum(smallDifferences))
    .describe('In which ways it differs without a difference in meaning'),
  mended: z
    .string()
    .nullable()
    .describe('The right name, keeping the instructor’s own words; null where it cannot be told'),
  confidence: z.number().min(0).max(1),
  reasons: z.array(z.string()).describe('In words'),
})
export type JudgedName = z.output<typeof JudgedName>

export const judgedName = (
  name: string,
  { verdict, fields, differences, mended, confidence, reasons }: NameJudgement,
): JudgedName => ({
  name,
  verdict,
  fields: fields.map(({ field, state, text, expected }) => ({ field, state, text, expected })),
  differences,
  mended,
  confidence,
  reasons: reasons.map(reasonWords),
})

/** What `names --infer` prints. */
export const InferredFormats = z.strictObject({
  schema: z.literal('wickerframe.inferred-formats/1'),
  names: z.number().int().describe('How many were read'),
  formats: z
    .array(
      z.strictObject({
        format: z.string(),
        count: z.number().int().describe('Names that follow it, small differences allowed'),
        coverage: z.number().min(0).max(1).describe('Their share of all names'),
        outliers: z.array(z.string()).describe('Names that do not; at most the first thousand'),
      }),
    )
    .describe('Best coverage first'),
})
export type InferredFormats = z.output<typeof InferredFormats>

export const inferredFormats = (
  names: number,
  formats: readonly InferredFormat[],
): InferredFormats => ({
  schema: 'wickerframe.inferred-formats/1',
  names,
  formats: formats.map(({ format, count, coverage, outliers }) => ({
    format,
    count,
    coverage: Math.round(coverage * 10_000) / 10_000,
    outliers,
  })),
})
