import { everyCourseItem, everyModule, type Course } from './course.ts'

/** Where a link in a page leads. */
export type LinkTarget =
  | { leads: 'item'; id: string }
  | { leads: 'module'; id: string }
  /** Into this course, to something that is not there. */
  | { leads: 'nowhere' }
  /** Into another course of the same platform; `path` is what follows that course's address. */
  | { leads: 'other-course'; course: string; path: string }
  | { leads: 'file'; url: string }
  | { leads: 'outside'; host: string }
  | { leads: 'mail'; address: string }
  /** Within the page, to a house text, or nothing that can be judged. */
  | { leads: 'elsewhere' }

/** How addresses of this course begin, and its id in them: `/courses/` and `nav-110`. Told by the course's id, or by what all addresses share. */
const ownAddress = (
  courseId: string,
  addresses: readonly string[],
): [string, string] | [null, null] => {
  const [first] = addresses
  if (first === undefined) return [null, null]
  const known = first.indexOf(`/${courseId}/`)
  if (known >= 0) return [first.slice(0, known + 1), courseId]
  const segments = addresses.map((address) => address.split('/').slice(0, -1))
  let shared = 0
  while (
    segments.length > 1 &&
    shared < (segments[0]?.length ?? 0) &&
    segments.every((segment) => segment[shared] === segments[0]?.[shared])
  )
    shared += 1
  const whole = segments[0]?.slice(0, shared) ?? []
  // `…/courses/7/items` is shared whole: the id is the last segment that is one of a kind, not a word for what it holds.
  const at = whole.findLastIndex((segment) => /\d/.test(segment))
  return at > 0 ? [`${whole.slice(0, at).join('/')}/`, whole[at] ?? ''] : [null, null]
}

/** How addresses of a course's own items begin, e.g. `/courses/nav-110/`; empty where it cannot be told. */
export const ownPrefix = (course: Course): string => {
  const [root, id] = ownAddress(
    course.id,
    everyCourseItem(course).flatMap(({ item }) => (item.url === null ? [] : [addressOf(item.url)])),
  )
  return root === null ? '' : `${root}${id}/`
}

const addressOf = (href: string): string => {
  const address = href.trim()
  const end = address.search(/[#?]/)
  return end < 0 ? address : address.slice(0, end)
}

/**
 * Tells where links of a course's pages lead. How the platform writes an address of its own is told from the addresses
 * of the course's items, so that it needs no setting.
 */
export const courseLinks = (course: Course): ((href: string) => LinkTarget) => {
  const items = everyCourseItem(course).map(({ item }) => item)
  const idOf = new Map(
    items.flatMap((item) => (item.url === null ? [] : [[addressOf(item.url), item.id] as const])),
  )
  const modules = everyModule(course.modules)
  const moduleOf = new Map(
    modules.flatMap((module) => (module.url ? [[addressOf(module.url), module.id] as const] : [])),
  )
  // A platform that does not tell its modules' addresses is taken to have their ids in them.
  const untold = new Set(modules.flatMap((module) => (module.url ? [] : [module.id])))
  const files = new Set((course.files ?? []).map((file) => addressOf(file.url)))
  const [root, id] = ownAddress(course.id, [...idOf.keys()])
  const origin = root === null ? null : (/^https?:\/\/[^/]+/.exec(root)?.[0] ?? null)
  const hosts = new Set(origin === null ? [] : [origin.replace(/^https?:\/\//, '')])
  return (href) => {
    const address = addressOf(href)
    if (/^mailto:/i.test(address)) return { leads: 'mail', address: address.slice(7) }
    if (address === '' || /^(?:#|house-text:|tel:|data:|javascript:)/i.test(href.trim()))
      return { leads: 'elsewhere' }
    const known = idOf.get(address)
    if (known !== undefined) return { leads: 'item', id: known }
    const module = moduleOf.get(address)
    if (module !== undefined) return { leads: 'module', id: module }
    if (files.has(address)) return { leads: 'file', url: address }
    const path = address.replace(/^https?:\/\/[^/]+/, (host) =>
      hosts.has(host.replace(/^https?:\/\//, '')) ? '' : host,
    )
    const ownRoot = root?.replace(/^https?:\/\/[^/]+/, '') ?? null
    if (ownRoot !== null && ownRoot !== '/' && path.startsWith(ownRoot)) {
      const [course = '', ...rest] = path.slice(ownRoot.length).split('/')
      if (course === id)
        return rest.length === 0
          ? { leads: 'elsewhere' }
          : untold.has(rest.at(-1) ?? '')
            ? { leads: 'module', id: rest.at(-1) ?? '' }
            : rest[0] === 'files' && files.size === 0
              ? { leads: 'file', url: address }
              : { leads: 'nowhere' }
      return course === ''
        ? { leads: 'elsewhere' }
        : { leads: 'other-course', course, path: rest.join('/') }
    }
    const host = /^https?:\/\/(?:[^/@]*@)?([^/:?#]+)/i.exec(address)?.[1]
    return host === undefined
      ? { leads: 'elsewhere' }
      : { leads: 'outside', host: host.toLowerCase() }
  }
}
