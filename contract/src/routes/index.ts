import type { AnswerOf, AskedBody, AskedParameters, AskedQuery, Route } from '../route.ts'
import { accountRoutes } from './account.ts'
import { auditRoutes } from './audit.ts'
import { calendarRoutes } from './calendars.ts'
import { checkRoutes } from './checks.ts'
import { conformanceRoutes } from './conformance.ts'
import { coursePeopleRoutes } from './coursePeople.ts'
import { courseRoutes } from './courses.ts'
import { fileRoutes } from './files.ts'
import { fillInRoutes } from './fillIn.ts'
import { followUpRoutes } from './followUps.ts'
import { healthRoutes } from './health.ts'
import { historyRoutes } from './history.ts'
import { impactRoutes } from './impact.ts'
import { joinRoutes } from './joins.ts'
import { libraryRoutes } from './library.ts'
import { madeCourseRoutes } from './madeCourses.ts'
import { mendRoutes } from './mends.ts'
import { mergeRoutes } from './merges.ts'
import { messageRoutes } from './messages.ts'
import { nameRoutes } from './names.ts'
import { outsideRoutes } from './outside.ts'
import { pageRoutes } from './pages.ts'
import { peopleRoutes } from './people.ts'
import { reportRoutes } from './reports.ts'
import { rolloutRoutes } from './rollouts.ts'
import { rosterRoutes } from './roster.ts'
import { runRoutes } from './runs.ts'
import { scheduleRoutes } from './schedules.ts'
import { sessionRoutes } from './session.ts'
import { standingRuleRoutes } from './standingRules.ts'
import { templateRoutes } from './templates.ts'
import { termRoutes } from './terms.ts'
import { todayRoutes } from './today.ts'
import { waiverRoutes } from './waivers.ts'

export * from './account.ts'
export * from './asked.ts'
export * from './audit.ts'
export * from './calendars.ts'
export * from './care.ts'
export * from './checks.ts'
export * from './conformance.ts'
export * from './coursePeople.ts'
export * from './courses.ts'
export * from './files.ts'
export * from './fillIn.ts'
export * from './followUps.ts'
export * from './health.ts'
export * from './history.ts'
export * from './impact.ts'
export * from './joins.ts'
export * from './library.ts'
export * from './madeCourses.ts'
export * from './mends.ts'
export * from './merges.ts'
export * from './messages.ts'
export * from './names.ts'
export * from './outside.ts'
export * from './pages.ts'
export * from './people.ts'
export * from './plan.ts'
export * from './reports.ts'
export * from './rollouts.ts'
export * from './roster.ts'
export * from './runs.ts'
export * from './schedules.ts'
export * from './session.ts'
export * from './standingRules.ts'
export * from './storedWaiver.ts'
export * from './templates.ts'
export * from './terms.ts'
export * from './today.ts'
export * from './waivers.ts'

/** Every route of the API, by the name that its callers and its documents call it by. */
export const routes = {
  ...sessionRoutes,
  ...outsideRoutes,
  ...accountRoutes,
  ...peopleRoutes,
  ...auditRoutes,
  ...pageRoutes,
  ...mergeRoutes,
  ...madeCourseRoutes,
  ...healthRoutes,
  ...calendarRoutes,
  ...termRoutes,
  ...templateRoutes,
  ...libraryRoutes,
  ...fileRoutes,
  ...fillInRoutes,
  ...courseRoutes,
  ...coursePeopleRoutes,
  ...rosterRoutes,
  ...reportRoutes,
  ...rolloutRoutes,
  ...standingRuleRoutes,
  ...runRoutes,
  ...checkRoutes,
  ...scheduleRoutes,
  ...conformanceRoutes,
  ...todayRoutes,
  ...historyRoutes,
  ...impactRoutes,
  ...joinRoutes,
  ...waiverRoutes,
  ...followUpRoutes,
  ...mendRoutes,
  ...nameRoutes,
  ...messageRoutes,
} as const
export type RouteName = keyof typeof routes
export type RouteNamed<Name extends RouteName> = (typeof routes)[Name]
export const routeNames = Object.keys(routes) as RouteName[]
/** A route by its name, without what is known of it at compile time. */
export const routeNamed = (name: RouteName): Route => routes[name]
export type AnswerTo<Name extends RouteName> = AnswerOf<RouteNamed<Name>>

/** What a caller of a route gives; what it does not take is left out. */
export type Asked<Name extends RouteName> = Needed<'at', AskedParameters<RouteNamed<Name>>> &
  Needed<'query', AskedQuery<RouteNamed<Name>>> &
  Needed<'body', AskedBody<RouteNamed<Name>>>
/** A field that may be left out when all of it may be. */
type Needed<Field extends string, T> = unknown extends T
  ? {}
  : {} extends T
    ? { [F in Field]?: T }
    : { [F in Field]: T }
