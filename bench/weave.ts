/**
 * Measures the weave in Chromium at 2,000 and at 10,000 courses: what goes over the wire, the first page, scrolling, a pointer and
 * a key answered, memory. The answers are made here, so that nothing but the page is measured. A benchmark, not a test: it prints
 * and asserts nothing.
 */
import { createServer } from 'node:http'
import { readFileSync } from 'node:fs'
import { extname, join } from 'node:path'
import { gzipSync } from 'node:zlib'
import type { Page } from 'playwright-core'
import type { Conformance, ConformanceRow } from '@wickerframe/contract'
import { seededRandom } from '@wickerframe/demo'
import { openBrowser } from '@wickerframe/scripts/browser'
import { root } from '@wickerframe/scripts/processes'
import { told } from './rows.ts'

const departments = ['GAL', 'HOP', 'MEN', 'NAV', 'OSC', 'SAF']
const parts = ['module', 'overview', 'reading', 'discussion', 'assignment', 'quiz']

/** A term of so many courses and, with sixteen weeks of six parts, 115 columns; about one crossing in thirty is open. */
const collegeOf = (courses: number): Conformance => {
  const random = seededRandom(2026)
  const groups = [
    ['home', 'Home', 8] as const,
    ...Array.from({ length: 16 }, (_, i) => [`week:${i + 1}`, `Week ${i + 1}`, 6] as const),
    ['names', 'Names', 5] as const,
    ['course', 'Course', 6] as const,
  ].map(([key, title, count]) => ({
    key,
    title,
    columns: Array.from({ length: count }, (_, i) => ({
      key: `${key}/${parts[i] ?? i}`,
      title: parts[i] ?? `thing ${i}`,
    })),
  }))
  const columns = groups.reduce((sum, group) => sum + group.columns.length, 0)
  const rows = Array.from({ length: courses }, (_, id): ConformanceRow => {
    const strands = Array.from({ length: columns }, () => {
      const drawn = random()
      return drawn < 0.02 ? 'X' : drawn < 0.035 ? 's' : drawn < 0.06 ? '.' : drawn < 0.3 ? 'n' : 'm'
    }).join('')
    const count = (letter: string) => strands.split(letter).length - 1
    const department = departments[id % departments.length] ?? ''
    return {
      id,
      platformId: `kc-${id}`,
      code: `${department} ${100 + (id % 300)}`,
      title: `Pumps, Piping and Practice ${id % 40}`,
      classSections: [String(id % 12).padStart(2, '0')],
      department,
      weeks: 16,
      template: 'Harbour Standard',
      owner: `Instructor ${id % 400}`,
      readiness: count('X') > 0 ? 'not-ready' : 'ready',
      openMusts: count('X'),
      openShoulds: count('s'),
      strands,
    }
  })
  return {
    asOf: '2026-09-16',
    groups,
    rows,
    unchecked: 0,
    checkedAgain: 0,
    mendFirst: [],
    totals: { courses, ready: 0, openMusts: 0, openShoulds: 0, cannotTell: 0 },
  }
}

const me = {
  name: 'Ingrid Okafor',
  email: 'designer@kestrelsound.example',
  roles: ['designer'],
  departments: [],
  today: '2026-09-16',
  theme: 'as the device',
}
const types: Readonly<Record<string, string>> = {
  '.html': 'text/html',
  '.js': 'text/javascript',
  '.css': 'text/css',
  '.woff2': 'font/woff2',
  '.svg': 'image/svg+xml',
}
const web = join(root, 'web/dist')
/** What the server would answer, already compressed as it would. */
const serving = (college: Conformance) => {
  const answers: Readonly<Record<string, Buffer>> = {
    '/api/me': gzipSync(JSON.stringify(me)),
    '/api/conformance': gzipSync(JSON.stringify(college)),
    '/api/terms': gzipSync('[]'),
    '/api/messages': gzipSync('[]'),
    '/api/checks/pulse': gzipSync('{"pulse":"a"}'),
  }
  return {
    wire: answers['/api/conformance']?.length ?? 0,
    server: createServer((request, response) => {
      const { pathname } = new URL(request.url ?? '/', 'http://127.0.0.1')
      const answer = answers[pathname]
      if (answer)
        response
          .writeHead(200, { 'content-type': 'application/json', 'content-encoding': 'gzip' })
          .end(answer)
      else if (pathname.startsWith('/api/'))
        response.writeHead(404, { 'content-type': 'application/problem+json' }).end('{}')
      else {
        const path = extname(pathname) === '' ? '/index.html' : pathname
        response
          .writeHead(200, { 'content-type': types[extname(path)] ?? 'application/octet-stream' })
          .end(readFileSync(join(web, path)))
      }
    }),
  }
}

/** Milliseconds from what somebody does to the frame in which it is seen. */
const seen = async (page: Page, does: () => Promise<unknown>, event: string): Promise<number> => {
  await page.evaluate(
    `void (window.seen = new Promise((resolve) => document.addEventListener('${event}', () => { const at = performance.now(); requestAnimationFrame(() => { const channel = new MessageChannel(); channel.port1.onmessage = () => resolve(performance.now() - at); channel.port2.postMessage(0) }) }, { once: true, capture: true })))`,
  )
  await does()
  return page.evaluate<number>('window.seen')
}

/** Milliseconds between frames while the weave is scrolled down from its top. @param pixels in each frame */
const scrolled = (page: Page, pixels: number): Promise<number[]> =>
  page.evaluate<number[]>(`new Promise((resolve) => {
    const grid = document.querySelector('[role=treegrid]')
    const frames = []
    let last = performance.now()
    let top = (grid.scrollTop = 0)
    const step = () => {
      const now = performance.now()
      frames.push(now - last)
      last = now
      // Not read back: that alone would have everything laid out at once.
      grid.scrollTop = top += ${pixels}
      if (frames.length < 240) requestAnimationFrame(step)
      else resolve(frames.slice(1))
    }
    requestAnimationFrame(step)
  })`)

const share = (values: readonly number[], q: number): string =>
  `${values.toSorted((a, b) => a - b)[Math.floor(values.length * q)]?.toFixed(1) ?? '?'} ms`

const browser = await openBrowser()
try {
  for (const courses of [2000, 10_000]) {
    const { server, wire } = serving(collegeOf(courses))
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve))
    const address = server.address()
    const port = typeof address === 'object' && address ? address.port : 0
    const page = await (
      await browser.newContext({ viewport: { width: 1280, height: 800 } })
    ).newPage()
    const paints: number[] = []
    for (let i = 0; i < 6; i++) {
      const began = Date.now()
      await page.goto(`http://127.0.0.1:${port}/conformance`)
      await page.getByRole('treegrid').waitFor()
      paints.push(Date.now() - began)
    }
    console.log(`${courses} courses, 115 columns:`)
    console.log(`  the answer on the wire: ${Math.round(wire / 1024)} kB`)
    console.log(`  from the address to the picture: ${told(paints.slice(1))}`)
    await page.goto(`http://127.0.0.1:${port}/conformance?open=${departments.join('~')}&weeks=all`)
    const grid = page.getByRole('treegrid')
    await grid.waitFor()
    console.log(
      `  nodes of the page, every band open: ${await page.evaluate('document.querySelectorAll("*").length')}`,
    )
    await grid.focus()
    const keys: number[] = []
    for (let i = 0; i < 60; i++)
      keys.push(
        await seen(
          page,
          () => page.keyboard.press(['ArrowDown', 'ArrowRight', 'PageDown'][i % 3] ?? 'End'),
          'keydown',
        ),
      )
    console.log(`  a key answered: median ${share(keys, 0.5)}, 95 % ${share(keys, 0.95)}`)
    const pointers: number[] = []
    for (let i = 0; i < 60; i++)
      pointers.push(
        await seen(
          page,
          () => page.mouse.move(300 + ((i * 53) % 600), 480 + ((i * 37) % 280)),
          'pointermove',
        ),
      )
    console.log(
      `  a pointer answered: median ${share(pointers, 0.5)}, 95 % ${share(pointers, 0.95)}`,
    )
    for (const pixels of [50, 180]) {
      const frames = await scrolled(page, pixels)
      console.log(
        `  frames while scrolling ${pixels} pixels each: median ${share(frames, 0.5)}, 95 % ${share(frames, 0.95)}, ${((100 * frames.filter((ms) => ms < 20).length) / frames.length).toFixed(0)} % under 20 ms`,
      )
    }
    const memory = async (): Promise<string> => {
      await page.requestGC()
      return `${(((await page.evaluate<number>('performance.memory.usedJSHeapSize')) as number) / 2 ** 20).toFixed(0)} MB`
    }
    const before = await memory()
    for (let i = 0; i < 3; i++) await scrolled(page, 180)
    console.log(`  memory: ${before}, after three times more of it: ${await memory()}`)
    await page.context().close()
    server.close()
    server.closeAllConnections()
  }
} finally {
  await browser.close()
}
