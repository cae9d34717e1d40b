import { applyChanges, everyCourseItem, filesOfChange, type Course } from '@wickerframe/core'
import type { ChangeSet, ChangeSetAnswer } from '@wickerframe/contract'
import type { Answer, Connector } from '../connector/client.ts'

/** A learning platform of a test’s own, in memory; it can be told to answer otherwise. */
export interface HeldPlatform {
  connector: Connector
  /** By id, as they stand now; a test edits them here as an instructor would. */
  courses: Map<string, Course>
  /** Change sets it was sent and took, in order; the same key again is not told twice. */
  taken: { course: string; key: string; set: ChangeSet }[]
  /** The bytes of files that it was sent, by their SHA-256. */
  contents: Map<string, Buffer>
  /** Everybody who was enrolled, by course. */
  enrolled: Map<string, { email: string; name: string }[]>
  /** Its next answers to an operation, in place of its own; what was asked is not done. */
  instead: (operation: keyof Connector, ...answers: Answer<never>[]) => void
  /** Its next answers to change sets are lost after they were done. */
  loseAnswers: (count: number) => void
}

const gone: Answer<never> = {
  state: 'refused',
  status: 404,
  code: 'no-course',
  detail: 'there is no such course',
}
const answered = <T>(value: T): Answer<T> => ({ state: 'answered', value })

/** A course with the files that its items show told beside those that it holds. */
const withFiles = (course: Course): Course => {
  const shown = everyCourseItem(course).flatMap(({ item }) =>
    item.file
      ? [
          {
            id: `shown-${item.id}`,
            name: item.file.name,
            url: `/courses/${course.id}/files/${item.file.content}`,
            restricted: false,
            content: item.file.content,
          },
        ]
      : [],
  )
  return shown.length === 0 ? course : { ...course, files: [...(course.files ?? []), ...shown] }
}

export const heldPlatform = (readAt: string): HeldPlatform => {
  const courses = new Map<string, Course>()
  const enrolled: HeldPlatform['enrolled'] = new Map()
  const taken: HeldPlatform['taken'] = []
  const answers = new Map<string, ChangeSetAnswer>()
  const contents: HeldPlatform['contents'] = new Map()
  const others = new Map<keyof Connector, Answer<never>[]>()
  let lost = 0
  let made = 0

  /** Answers as it was told to, or as it would by itself. */
  const say = async <T>(operation: keyof Connector, own: () => Answer<T>): Promise<Answer<T>> =>
    others.get(operation)?.shift() ?? own()
  const about = <T>(id: string, answer: (course: Course) => T): Answer<T> => {
    const course = courses.get(id)
    return course ? answered(answer(course)) : gone
  }
  const put = (course: Course): Course => {
    courses.set(course.id, course)
    return course
  }
  const empty = (id: string, name: string): Course => ({
    schema: 'wickerframe.course/2',
    id,
    name,
    label: '',
    status: 'teaching',
    published: true,
    revision: '1',
    readAt,
    timeZone: 'America/Halifax',
    opensAt: null,
    closesAt: null,
    homePage: null,
    navigation: [],
    modules: [],
    stray: [],
  })
  const take = (key: string, course: Course, set: ChangeSet): Answer<ChangeSetAnswer> => {
    const files = set.changes.flatMap(filesOfChange)
    if (files.some(({ content, fields }) => fields !== undefined || !contents.has(content)))
      return { state: 'refused', status: 409, code: 'no-content', detail: 'not held here' }
    if (course.revision !== set.expectedRevision)
      return { state: 'refused', status: 409, code: 'stale-revision', detail: 'it was edited' }
    const applied = applyChanges(course, set.changes, {
      newId: (kind) => `${kind === 'module' ? 'm' : 'i'}${++made}`,
      urlOf: (id) => `/courses/${course.id}/${id.startsWith('m') ? 'modules' : 'items'}/${id}`,
      rewriteHtml: (html) => html,
    })
    if (!applied.ok)
      return { state: 'refused', status: 409, code: applied.problems.code, detail: '' }
    const revision = String(Number(course.revision) + 1)
    const { ids } = applied.value
    const after = put({ ...applied.value.course, revision })
    const answer = { revision, ids, course: after }
    taken.push({ course: course.id, key, set })
    answers.set(key, answer)
    return answered(answer)
  }
  return {
    courses,
    contents,
    taken,
    enrolled,
    instead: (operation, ...more) => {
      others.set(operation, [...(others.get(operation) ?? []), ...more])
    },
    loseAnswers: (count) => {
      lost = count
    },
    connector: {
      list: (after) =>
        say('list', () =>
          answered({
            courses: [...courses.values()]
              .map(({ id, name, status, revision }, i) => ({
                id,
                name,
                status: status ?? 'teaching',
                revision,
                cursor: i + 1,
              }))
              .filter(({ cursor }) => cursor > after),
            cursor: courses.size,
          }),
        ),
      create: (id, name) => say('create', () => answered(courses.get(id) ?? put(empty(id, name)))),
      enrol: (id, people) =>
        say('enrol', () =>
          about(id, () => {
            const all = [...(enrolled.get(id) ?? []), ...people]
            enrolled.set(id, all)
            return { people: all }
          }),
        ),
      setStatus: (id, status) =>
        say('setStatus', () => about(id, (course) => put({ ...course, status }))),
      rehearse: (id, of) =>
        say('rehearse', () => about(of, (course) => put({ ...course, id, status: 'set-aside' }))),
      discard: (id) => say('discard', () => answered({ discarded: courses.delete(id) })),
      snapshot: (id) =>
        say('snapshot', () => about(id, (course) => structuredClone(withFiles(course)))),
      apply: (id, key, set) =>
        say('apply', () => {
          const course = courses.get(id)
          const known = answers.get(key)
          const answer = known ? answered(known) : course ? take(key, course, set) : gone
          if (answer.state !== 'answered' || lost === 0) return answer
          lost -= 1
          return { state: 'unknown', detail: 'the answer was lost' }
        }),
      hasContent: (content) => say('hasContent', () => answered({ held: contents.has(content) })),
      putContent: async (content, pieces) => {
        const all: Uint8Array[] = []
        for await (const piece of pieces) all.push(piece)
        return say('putContent', () => {
          contents.set(content, Buffer.concat(all))
          return answered({ content })
        })
      },
      readContent: (_, content) =>
        say('readContent', () => {
          const bytes = contents.get(content)
          return bytes ? answered(bytes) : gone
        }),
      putAsset: (fileName) => say('putAsset', () => answered({ url: `/files/${fileName}` })),
    },
  }
}
