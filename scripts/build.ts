import { bundle } from './bundle.ts'

// The programs of a production install, each as one file: what runs them needs no development dependency.
for (const program of ['main', 'worker', 'migrateSchema', 'invitePeople'])
  await bundle(`server/src/${program}.ts`)
await bundle('cli/src/main.ts')
