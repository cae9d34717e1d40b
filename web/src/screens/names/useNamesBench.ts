import { useMemo, useState } from 'react'
import {
  everyPart,
  homePageKey,
  nameContext,
  parseFormat,
  type Template,
  type TemplateEdit,
} from '@wickerframe/core'
import { useCourses, useDraft, useFacts, useNamesInUse } from '../../api/queries.ts'
import { useAddress } from '../../shell/useAddress.ts'
import type { ListedName } from './protocol.ts'

const usualFormat = 'Week {week} · {dates} · {topic}'

export const formatOf = (template: Template, part: string): string | null =>
  part === 'course'
    ? template.naming.courseName
    : part === homePageKey
      ? template.home.name
      : (everyPart(template).find(({ key }) => key === part)?.name ?? null)

/** The edit of a draft that gives a part, the home page or the courses another format. */
export const formatEdit = (part: string, was: string, value: string): TemplateEdit =>
  part === 'course'
    ? { edit: 'set-field', part: null, field: ['naming', 'courseName'], was, value }
    : { edit: 'set-field', part, field: ['name'], was, value }

export const listedNames = (typed: string): ListedName[] =>
  typed
    .split(/\r?\n/)
    .map((line) => line.trim())
    .filter((line) => line !== '')
    .map((name) => ({ name }))

/** What the naming bench works on: a format, the course it is written out for, and the names it is held to. */
export const useNamesBench = () => {
  const { search, set } = useAddress()
  const templateKey = search.get('template') ?? ''
  const part = search.get('part') ?? ''
  const draft = useDraft(templateKey, templateKey !== '')
  const courses = useCourses()
  const inUse = useNamesInUse(templateKey, part)
  const templateFormat = draft.data && part ? formatOf(draft.data.draft, part) : null

  // A part's own format stands to begin with; what is typed afterwards stays in the address.
  const [typedFormat, setTypedFormat] = useState(search.get('format'))
  const format = typedFormat ?? templateFormat ?? (templateKey === '' ? usualFormat : '')
  const [typedNames, setTypedNames] = useState('')
  const fromCourses = part !== '' && templateKey !== ''
  const names = useMemo(
    (): readonly ListedName[] =>
      fromCourses ? (inUse.data?.names ?? []) : listedNames(typedNames),
    [fromCourses, inUse.data, typedNames],
  )

  const example =
    courses.data?.find(({ template }) => templateKey === '' || template?.key === templateKey) ??
    courses.data?.[0]
  const courseId = search.get('course') ?? String(example?.id ?? '')
  const facts = useFacts(courseId)
  const parsed = useMemo(() => parseFormat(format), [format])
  const context = useMemo(() => {
    if (!parsed.ok || !facts.data) return null
    const made = nameContext({ facts: facts.data, place: {} }, parsed.value)
    return made.ok ? made.value : null
  }, [parsed, facts.data])

  return {
    templateKey,
    part,
    draft,
    courses: courses.data ?? [],
    inUse,
    templateFormat,
    format,
    parsed,
    context,
    courseId,
    typedNames,
    names,
    /** Whether the names are those of a part in real courses, rather than typed. */
    fromCourses,
    typeFormat: (next: string | null) => {
      setTypedFormat(next)
      set({ format: next })
    },
    typeNames: setTypedNames,
    chooseCourse: (id: string) => set({ course: id }),
    chooseTemplate: (key: string) => {
      setTypedFormat(null)
      set({ template: key || null, part: null, format: null })
    },
    choosePart: (key: string) => {
      setTypedFormat(null)
      set({ part: key || null, format: null })
    },
  }
}
export type NamesBench = ReturnType<typeof useNamesBench>
