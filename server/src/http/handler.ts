import type { Request, Response } from 'express'
import type { Pool } from 'mysql2/promise'
import type { AnswerOf, BodyOf, ParametersOf, QueryOf, Route } from '@wickerframe/contract'
import type { Connector } from '../connector/client.ts'
import type { InstitutionDay, InstitutionInstant } from '../start/clocks.ts'
import type { FileThreads } from '../files/fileThreads.ts'
import type { ReportWriter } from '../reports/reportWriter.ts'
import type { OutsideProvider } from '../people/outside/provider.ts'
import type { Person } from '../people/people.ts'
import type { Pulses } from '../runs/pulses.ts'

/** What a handler of any route may use. `person` is somebody who may do what the route names. */
export interface Situation {
  request: Request
  response: Response
  pool: Pool
  connector: Connector
  files: FileThreads
  reports: ReportWriter
  pulses: Pulses
  /** Whether the session of the request still stands; asking does not keep it alive. */
  sessionStands: () => Promise<boolean>
  person: Person
  /** What the route asks for. */
  may: Route['may']
  /** By the institution's clock. */
  today: InstitutionDay
  now: InstitutionInstant
  /** The institution’s. */
  timeZone: string
  platformUrl: string
  /** The institution’s own sign-in; null: there is none. */
  outside: OutsideProvider | null
  /** Whether one signs in with a password that is kept here. */
  localAccounts: boolean
  /** Whether people are told by mail as well. */
  sendsMail: boolean
  /** Where people reach this program. */
  publicUrl: string
  secureCookies: boolean
}

/** With what was asked, read by the route's definition: `at` is what stands in its address. */
export interface Handling<R extends Route> extends Situation {
  at: ParametersOf<R>
  query: QueryOf<R>
  body: BodyOf<R>
}

/** What a handler gives that has answered by itself: a file, a page, a stream. */
export const hasAnswered: unique symbol = Symbol('has answered')

/** Gives what is answered as JSON. */
export type Handler<R extends Route> = (
  handling: Handling<R>,
) => Promise<AnswerOf<R> | typeof hasAnswered>

/** A handler as the server calls it, which reads what was asked by the route’s own definition. */
export type AnyHandler = (
  handling: Situation & { at: Record<string, unknown>; query: {}; body: unknown },
) => Promise<unknown>

/** A handler for each of several routes, under the same names. */
export type HandlersOf<Routes extends Readonly<Record<string, Route>>> = {
  [Name in keyof Routes]: Handler<Routes[Name]>
}
