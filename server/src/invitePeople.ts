import { openDatabase } from './start/openDatabase.ts'
import { orSayAndEnd } from './start/sayAndEnd.ts'
import { readSettings } from './start/settings.ts'
import { peopleCommand } from './people/command.ts'

// `npm run people`: lets the first administrator in, and whoever has lost their way later.
await orSayAndEnd(async () => {
  const settings = readSettings(process.env)
  const pool = await openDatabase(settings)
  try {
    console.log(await peopleCommand(pool, process.argv.slice(2), settings.WICKERFRAME_PUBLIC_URL))
  } finally {
    await pool.end()
  }
})
