import type { Course } from '../course/index.ts'
import { everyExpected, type ExpectedCourse } from '../expand/index.ts'
import { targetIn } from '../template/index.ts'

/** A navigation as it is merged: what stands in the course under a part's instance leads to `part:INSTANCE`. */
export type Navigation = Course['navigation']

const led = (navigation: Navigation, where: (to: string) => string | null): Navigation =>
  navigation.map(({ to, ...entry }) => {
    const now = to === undefined ? null : where(to)
    return now === null ? entry : { ...entry, to: now }
  })

/** The navigation that the template wants; a part that repeats is led to where it stands first, one that is not in the course nowhere. */
export const wantedNavigation = ({ template, parts, home }: ExpectedCourse): Navigation => {
  const all = [...everyExpected(parts), home]
  return led(
    template.navigation.map(({ label, hidden, to }) => ({ label, hidden, to })),
    (to) => {
      const key = targetIn('part', to)
      if (key === null) return to
      const part = all.find((part) => part.key === key && (part.kind === 'module' || !part.inBreak))
      return part ? `part:${part.instance}` : null
    },
  )
}

/** A course's navigation by instances. @param instanceOf what stands under an id; undefined for what is no part of the template */
export const navigationByInstance = (
  navigation: Navigation,
  instanceOf: (id: string) => string | undefined,
): Navigation =>
  led(navigation, (to) => {
    const instance = instanceOf(targetIn('item', to) ?? '')
    return instance === undefined ? to : `part:${instance}`
  })

/**
 * What led to a part that is gone and comes again, by the id it had: where an entry leads to nothing now, and one that reads alike
 * was deployed to lead to the part.
 * @param deployed the navigation as it was deployed, by instances
 * @param isGone whether nothing stands under an id
 * @param comes whether a part is made
 */
export const ledThereBefore = (
  navigation: Navigation,
  deployed: Navigation,
  isGone: (id: string) => boolean,
  comes: (instance: string) => boolean,
): [id: string, instance: string][] =>
  navigation.flatMap(({ label, to }) => {
    const id = targetIn('item', to)
    const instance = targetIn('part', deployed.find((entry) => entry.label === label)?.to)
    return id !== null && isGone(id) && instance !== null && comes(instance)
      ? [[id, instance] as [string, string]]
      : []
  })

/**
 * A navigation as a change writes it.
 * @param refOf the id of an instance, or the reference of what is created; null where it is not in the course
 */
export const navigationOnPlatform = (
  navigation: Navigation,
  refOf: (instance: string) => string | null,
): Navigation =>
  led(navigation, (to) => {
    const instance = targetIn('part', to)
    if (instance === null) return to
    const ref = refOf(instance)
    return ref === null ? null : `item:${ref}`
  })

/**
 * A course's navigation with what led to something that is gone leading to what comes back for it.
 * @param newRefOf the reference of what is created for what stood under an id; null where nothing is
 * @returns null where nothing of it does
 */
export const ledToCreated = (
  navigation: Navigation,
  newRefOf: (id: string) => string | null,
): Navigation | null => {
  let changed = false
  const now = led(navigation, (to) => {
    const id = targetIn('item', to)
    const ref = id === null ? null : newRefOf(id)
    if (ref === null) return to
    changed = true
    return `item:${ref}`
  })
  return changed ? now : null
}
