import type { routes, RouteName } from '@wickerframe/contract'
import type { AnyHandler, HandlersOf } from './handler.ts'
import { auditHandlers } from './routes/audit.ts'
import { calendarHandlers } from './routes/calendars.ts'
import { followUpHandlers } from './routes/followUps.ts'
import { joinHandlers } from './routes/joins.ts'
import { waiverHandlers } from './routes/waivers.ts'
import { checkHandlers } from './routes/checks.ts'
import { courseHandlers } from './routes/courses.ts'
import { healthHandlers } from './routes/health.ts'
import { libraryHandlers } from './routes/library.ts'
import { madeCourseHandlers } from './routes/madeCourses.ts'
import { mendHandlers } from './routes/mends.ts'
import { mergeHandlers } from './routes/merges.ts'
import { messageHandlers } from './routes/messages.ts'
import { nameHandlers } from './routes/names.ts'
import { pageHandlers } from './routes/pages.ts'
import { rolloutHandlers } from './routes/rollouts.ts'
import { rosterHandlers } from './routes/roster.ts'
import { runHandlers } from './routes/runs.ts'
import { sessionHandlers } from './routes/session.ts'
import { standingRuleHandlers } from './routes/standingRules.ts'
import { templateHandlers } from './routes/templates.ts'
import { termHandlers } from './routes/terms.ts'

/** A handler for every route; one without a handler, or the other way round, does not compile. */
const handlers: HandlersOf<typeof routes> = {
  ...healthHandlers,
  ...sessionHandlers,
  ...auditHandlers,
  ...termHandlers,
  ...templateHandlers,
  ...libraryHandlers,
  ...courseHandlers,
  ...calendarHandlers,
  ...pageHandlers,
  ...rosterHandlers,
  ...madeCourseHandlers,
  ...mergeHandlers,
  ...rolloutHandlers,
  ...standingRuleHandlers,
  ...runHandlers,
  ...checkHandlers,
  ...joinHandlers,
  ...waiverHandlers,
  ...followUpHandlers,
  ...mendHandlers,
  ...nameHandlers,
  ...messageHandlers,
}

/** The handler of a route; what it is given was read by the route's own definition. */
export const handlerNamed = (name: RouteName) => handlers[name] as unknown as AnyHandler
