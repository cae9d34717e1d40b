const mostRemembered = 5000
const rememberedMilliseconds = 600_000

/**
 * Remembers what was seen to be held on the platform, for ten minutes: it may be brought back as it stood before. @param now
 * milliseconds that only grow
 */
export const heldMemory = (now = () => performance.now()) => {
  const seen = new Map<string, number>()
  return {
    has: (name: string): boolean => now() - (seen.get(name) ?? -Infinity) < rememberedMilliseconds,
    add: (name: string): void => {
      if (seen.size >= mostRemembered) seen.clear()
      seen.set(name, now())
    },
    /** What is held there has to be asked for again. */
    forget: (): void => seen.clear(),
  }
}

/** What this process knows to be held there: images by their names, files by what they hold. */
export const heldThere = heldMemory()
