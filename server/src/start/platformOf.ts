import type { Pool } from 'mysql2/promise'
import { connectorClient, type Connector } from '../connector/client.ts'
import type { FileThreads } from '../files/fileThreads.ts'
import { readingFiles } from '../files/readShownFiles.ts'
import type { Settings } from './settings.ts'

/** The learning platform as this program reaches it, with the texts of the files that courses show. */
export const platformOf = (settings: Settings, pool: Pool, files: FileThreads): Connector =>
  readingFiles(
    connectorClient({
      url: settings.PLATFORM_URL,
      token: settings.PLATFORM_TOKEN,
      timeoutSeconds: settings.CONNECTOR_TIMEOUT_SECONDS,
    }),
    pool,
    files,
  )
