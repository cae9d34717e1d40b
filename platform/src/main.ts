import { createServer } from 'node:http'
import { fileURLToPath } from 'node:url'
import express, { type NextFunction, type Request, type Response } from 'express'
import helmet from 'helmet'
import { connectorPath } from '@wickerframe/contract'
import { connect, createSchema, firstRow, migrate } from '@wickerframe/storage'
import { connectorRoutes } from './connectorRoutes.ts'
import { Courses } from './courses.ts'
import { Misbehaviours } from './misbehave.ts'
import { screenRoutes } from './screenRoutes.ts'
import { page } from './screens/layout.ts'
import { readSettings } from './settings.ts'

const settings = readSettings(process.env)
const address = {
  host: '127.0.0.1',
  port: settings.DATABASE_PORT,
  user: settings.DATABASE_USER,
  password: settings.DATABASE_PASSWORD,
  database: settings.PLATFORM_DATABASE,
  institutionOffsetSeconds: settings.INSTITUTION_CLOCK_OFFSET_SECONDS,
}
await createSchema(address)
const pool = connect(address)
await migrate(pool, fileURLToPath(new URL('../migrations', import.meta.url))).catch(
  (cause: unknown) => {
    // Said in a sentence: whoever starts it has no use for where in the program it was found.
    console.error(cause instanceof Error ? cause.message : String(cause))
    process.exit(1)
  },
)

const courses = new Courses(pool, () =>
  new Date(Date.now() + settings.INSTITUTION_CLOCK_OFFSET_SECONDS * 1000).toISOString(),
)
const misbehaviours = new Misbehaviours(pool)

const app = express()
app.disable('x-powered-by')
app.use(
  helmet({
    contentSecurityPolicy: {
      directives: {
        defaultSrc: ["'none'"],
        styleSrc: ["'unsafe-inline'"],
        imgSrc: ["'self'"],
        formAction: ["'self'"],
        frameAncestors: ["'none'"],
        baseUri: ["'none'"],
        upgradeInsecureRequests: null,
      },
    },
    strictTransportSecurity: false,
  }),
)
app.use(connectorPath, connectorRoutes(courses, misbehaviours, pool, settings.PLATFORM_TOKEN))
app.get('/files/:name', async (request: Request, response: Response) => {
  const asset = await firstRow<{ media_type: string; bytes: Buffer }>(
    pool,
    `SELECT media_type, bytes
     FROM assets
     WHERE file_name = ?`,
    [String(request.params['name'])],
  )
  if (!asset) return void response.status(404).end()
  response
    .type(asset.media_type)
    .set('Content-Security-Policy', "default-src 'none'; style-src 'unsafe-inline'; sandbox")
    .set('Cross-Origin-Resource-Policy', 'cross-origin')
    .send(asset.bytes)
})
app.use(screenRoutes(courses, misbehaviours, pool))
app.use((cause: unknown, _request: Request, response: Response, next: NextFunction) => {
  if (response.headersSent) return next(cause)
  const status =
    typeof cause === 'object' &&
    cause !== null &&
    'status' in cause &&
    typeof cause.status === 'number'
      ? cause.status
      : 500
  if (status >= 500) console.error(cause)
  response
    .status(status)
    .send(
      page(
        'Refused',
        `<h1>${status >= 500 ? 'The platform failed' : 'The platform could not read that'}</h1>`,
      ),
    )
})

const server = createServer(app)
server.listen(settings.PLATFORM_PORT, '127.0.0.1', () => {
  const bound = server.address()
  console.log(
    JSON.stringify({
      listening: typeof bound === 'object' && bound ? bound.port : settings.PLATFORM_PORT,
    }),
  )
})

let stopping = false
const stop = () => {
  if (stopping) return
  stopping = true
  server.close()
  server.closeAllConnections()
  void pool.end().then(() => process.exit(0))
}
process.on('SIGTERM', stop)
process.on('SIGINT', stop)
