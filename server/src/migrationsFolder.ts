import { fileURLToPath } from 'node:url'

/** Where the schema’s migrations stand, as seen from the sources and from the bundles beside them. */
export const migrationsFolder = fileURLToPath(new URL('../migrations', import.meta.url))
