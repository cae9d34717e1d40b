import { openDatabase } from './start/openDatabase.ts'
import { orSayAndEnd } from './start/sayAndEnd.ts'
import { readSettings } from './start/settings.ts'

// `npm run migrate`: makes and changes the schema, as a user who may; the others can then run as one who may not.
await orSayAndEnd(async () => {
  const pool = await openDatabase(readSettings(process.env))
  console.log(JSON.stringify({ schema: 'as this program needs it' }))
  await pool.end()
})
