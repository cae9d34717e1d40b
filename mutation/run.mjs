/** Tries the tests of some areas, or of all: `npm run test:mutation -- check naming`. Ends an area after an hour. */
import { spawnSync } from 'node:child_process'
import { areas } from './areas.mjs'

const wanted = process.argv.slice(2)
const unknown = wanted.filter((name) => !(name in areas))
if (unknown.length > 0) {
  console.error(`no area ${unknown.join(', ')}; there are ${Object.keys(areas).join(', ')}`)
  process.exit(2)
}
for (const name of wanted.length > 0 ? wanted : Object.keys(areas)) {
  console.log(`\n— ${name}`)
  spawnSync('npx', ['stryker', 'run', 'mutation/stryker.mjs'], {
    stdio: ['ignore', 'inherit', 'inherit'],
    env: { ...process.env, AREA: name },
    timeout: 3_600_000,
  })
}
