import type { routes, RouteName } from '@wickerframe/contract'
import type { AnyHandler, HandlersOf } from './handler.ts'
import { accountHandlers } from '../people/accountRoutes.ts'
import { peopleHandlers } from '../people/peopleRoutes.ts'
import { outsideHandlers } from '../people/outside/routes.ts'
import { auditHandlers } from '../audit/routes.ts'
import { calendarHandlers } from '../courses/calendarRoutes.ts'
import { fillInHandlers } from '../fillIn/routes.ts'
import { fileHandlers } from '../files/routes.ts'
import { followUpHandlers } from '../followUps/routes.ts'
import { joinHandlers } from '../joins/routes.ts'
import { waiverHandlers } from '../waivers/routes.ts'
import { checkHandlers } from '../checks/routes.ts'
import { conformanceHandlers } from '../conformance/routes.ts'
import { historyHandlers } from '../history/routes.ts'
import { impactHandlers } from '../impact/routes.ts'
import { reportHandlers } from '../reports/routes.ts'
import { todayHandlers } from '../today/routes.ts'
import { coursePeopleHandlers } from '../courses/coursePeopleRoutes.ts'
import { courseHandlers } from '../courses/routes.ts'
import { healthHandlers } from './healthRoutes.ts'
import { libraryHandlers } from '../library/routes.ts'
import { madeCourseHandlers } from '../roster/madeCourseRoutes.ts'
import { mendHandlers } from '../mends/routes.ts'
import { mergeHandlers } from '../roster/classSectionMergeRoutes.ts'
import { messageHandlers } from '../messages/routes.ts'
import { nameHandlers } from '../names/routes.ts'
import { pageHandlers } from '../checks/pageRoutes.ts'
import { rolloutHandlers } from '../rollouts/routes.ts'
import { rosterHandlers } from '../roster/routes.ts'
import { runHandlers } from '../runs/routes.ts'
import { scheduleHandlers } from '../schedules/routes.ts'
import { sessionHandlers } from '../people/routes.ts'
import { standingRuleHandlers } from '../rollouts/standingRuleRoutes.ts'
import { templateHandlers } from '../templates/routes.ts'
import { termHandlers } from '../terms/routes.ts'

/** A handler for every route; one without a handler, or the other way round, does not compile. */
const handlers: HandlersOf<typeof routes> = {
  ...healthHandlers,
  ...sessionHandlers,
  ...outsideHandlers,
  ...accountHandlers,
  ...peopleHandlers,
  ...auditHandlers,
  ...termHandlers,
  ...templateHandlers,
  ...libraryHandlers,
  ...fileHandlers,
  ...fillInHandlers,
  ...courseHandlers,
  ...coursePeopleHandlers,
  ...calendarHandlers,
  ...pageHandlers,
  ...rosterHandlers,
  ...madeCourseHandlers,
  ...mergeHandlers,
  ...rolloutHandlers,
  ...standingRuleHandlers,
  ...runHandlers,
  ...checkHandlers,
  ...scheduleHandlers,
  ...conformanceHandlers,
  ...historyHandlers,
  ...impactHandlers,
  ...reportHandlers,
  ...todayHandlers,
  ...joinHandlers,
  ...waiverHandlers,
  ...followUpHandlers,
  ...mendHandlers,
  ...nameHandlers,
  ...messageHandlers,
}

/** The handler of a route; what it is given was read by the route's own definition. */
export const handlerNamed = (name: RouteName) => handlers[name] as unknown as AnyHandler
