import type { Plugin } from 'vite'

const suffix = '?shared-worker-url'

/**
 * Workers built with the page rather than apart from it, so that both load the same pieces once: `./read.worker.ts?shared-worker-url`
 * gives the address to start the worker from.
 */
export const sharedWorkers = (): Plugin => {
  let isBuild = false
  return {
    name: 'wickerframe:shared-workers',
    enforce: 'pre',
    configResolved: ({ command }) => {
      isBuild = command === 'build'
    },
    async resolveId(source, importer) {
      if (!source.endsWith(suffix)) return null
      const resolved = await this.resolve(source.slice(0, -suffix.length), importer)
      return resolved && `${resolved.id}${suffix}`
    },
    load(id) {
      if (!id.endsWith(suffix)) return null
      const worker = id.slice(0, -suffix.length)
      if (!isBuild) return `export { default } from ${JSON.stringify(`${worker}?worker&url`)}`
      const piece = this.emitFile({ type: 'chunk', id: worker })
      return `export default import.meta.ROLLUP_FILE_URL_${piece}`
    },
  }
}
