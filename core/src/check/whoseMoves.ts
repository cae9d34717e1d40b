import { modulesIn, ownerOf, type CourseModule } from '../course/index.ts'
import type { CheckContext, Subject } from '../rules/index.ts'

/**
 * Who must act for what a verdict is about: the owner of the innermost module around it that has one of its own, otherwise the
 * owner of the course. For what the template asks for, the template's modules count; for what is there besides, those it stands in.
 * @returns an e-mail address; null where nobody teaches the course
 */
export const whoseMoves = (
  context: CheckContext,
): ((subject: Subject, foundId: string | null) => string | null) => {
  const { facts } = context.expected
  const own = new Map(Object.entries(facts.moduleOwners))
  const ofCourse = ownerOf(facts)
  if (own.size === 0) return () => ofCourse

  const standingIn = new Map<string, string>()
  const walk = (modules: readonly CourseModule[], around: string | null): void => {
    for (const module of modules) {
      const owner = own.get(context.partOf(module.id)?.instance ?? module.id) ?? around
      if (owner !== null) standingIn.set(module.id, owner)
      walk(modulesIn(module), owner)
    }
  }
  walk(context.course.modules, null)

  return (subject, foundId) => {
    if (subject.about === 'part')
      for (
        let part: typeof subject.part | null = subject.part;
        part;
        part = context.partAt(part.parent)
      ) {
        const owner = own.get(part.instance)
        if (owner !== undefined) return owner
      }
    const module = foundId === null ? null : (context.placed(foundId)?.module?.id ?? foundId)
    return (module === null ? undefined : standingIn.get(module)) ?? ofCourse
  }
}
