import type { z } from 'zod'
import type { Capability } from './capabilities.ts'
import type { pathParameters } from './pathParameters.ts'

/** What is not JSON: a file, a page, a stream of events. */
export interface Media {
  media:
    | 'text/csv'
    | 'text/calendar'
    | 'text/html'
    | 'text/event-stream'
    | 'application/octet-stream'
    | 'location'
  /** Taken from the wire by whoever handles it, piece by piece, and never in memory whole. */
  streamed?: true
}
export const csv = { media: 'text/csv' } as const satisfies Media
export const iCalendar = { media: 'text/calendar' } as const satisfies Media
export const html = { media: 'text/html' } as const satisfies Media
export const eventStream = { media: 'text/event-stream' } as const satisfies Media
export const bytes = { media: 'application/octet-stream' } as const satisfies Media
export const streamed = {
  media: 'application/octet-stream',
  streamed: true,
} as const satisfies Media
/** Nothing but another address, where the browser goes on. */
export const redirect = { media: 'location' } as const satisfies Media
export const isMedia = (content: z.ZodType | Media): content is Media => 'media' in content

/** How much of a JSON body is read; counted before it is parsed. */
export interface BodyLimits {
  bytes: number
  values: number
}

/** One route of the API: everything about it that its server, its clients and its documents need. */
export interface Route {
  method: 'get' | 'post'
  path: `/api/${string}`
  summary: string
  /** What somebody must be able to do; `anyone`: also without signing in. Rows are narrowed further. */
  may: Capability | 'anyone'
  query?: z.ZodObject
  body?: z.ZodType | Media
  answer: z.ZodType | Media
  /** The usual ones of the server without. */
  limits?: BodyLimits
}

export type ParameterName = keyof typeof pathParameters
/** Names of the parameters in a path. */
export type NamesIn<Path extends string> = Path extends `${string}:${infer Name}/${infer Rest}`
  ? Name | NamesIn<Rest>
  : Path extends `${string}:${infer Name}`
    ? Name
    : never

/** What stands in the address of a route, read. */
export type ParametersOf<R extends Route> = {
  [Name in NamesIn<R['path']> & ParameterName]: z.output<(typeof pathParameters)[Name]>
}
export type QueryOf<R extends Route> = R['query'] extends z.ZodType ? z.output<R['query']> : {}
export type BodyOf<R extends Route> = R['body'] extends z.ZodType ? z.output<R['body']> : undefined
/** undefined for what is not JSON. */
export type AnswerOf<R extends Route> = R['answer'] extends z.ZodType
  ? z.output<R['answer']>
  : undefined

/** What a caller says: defaults may be left out. */
/** In an address a caller may write a number as its digits. */
export type AskedParameters<R extends Route> = { [Name in keyof ParametersOf<R>]: string | number }
export type AskedQuery<R extends Route> = R['query'] extends z.ZodType ? z.input<R['query']> : {}
export type AskedBody<R extends Route> = R['body'] extends z.ZodType
  ? Unchanged<z.input<R['body']>>
  : unknown
/** Lists are only read. */
type Unchanged<T> = T extends readonly (infer Member)[]
  ? readonly Unchanged<Member>[]
  : T extends object
    ? { [Field in keyof T]: Unchanged<T[Field]> }
    : T
