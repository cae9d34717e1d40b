import { unzipSync, type UnzipFileInfo } from 'fflate'

/** What a zipped document holds, by the names of its parts. */
export interface Zipped {
  names: ReadonlySet<string>
  /** A part as text; null where it is not there. @throws where it is larger than it may be */
  text: (name: string) => string | null
}

/** How large a single part may be, and all of them together: what unpacks to more is no document that people hand out. */
const mostPartBytes = 30 * 2 ** 20
const mostBytes = 200 * 2 ** 20
const mostParts = 5000

/**
 * Looks into a zipped document (ZIP, APPNOTE 6.3), unpacking nothing but what is asked for.
 * @returns null where it is none, or unpacks to more than it may
 */
export const zipped = (bytes: Uint8Array): Zipped | null => {
  const sizes = new Map<string, number>()
  try {
    unzipSync(bytes, {
      filter: ({ name, originalSize }: UnzipFileInfo) => {
        sizes.set(name, originalSize)
        return false
      },
    })
  } catch {
    return null
  }
  const all = [...sizes.values()].reduce((sum, size) => sum + size, 0)
  if (sizes.size === 0 || sizes.size > mostParts || all > mostBytes) return null
  return {
    names: new Set(sizes.keys()),
    text: (wanted) => {
      const size = sizes.get(wanted)
      if (size === undefined) return null
      if (size > mostPartBytes) throw new RangeError(`${wanted} unpacks to ${size} bytes`)
      const part = unzipSync(bytes, { filter: ({ name }) => name === wanted })[wanted]
      return part === undefined ? null : new TextDecoder('utf-8').decode(part)
    },
  }
}
