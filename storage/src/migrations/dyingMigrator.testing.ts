import { connect, type DatabaseAddress } from '../connect.ts'
import { migrate } from './migrate.ts'

// Run by a test in a process of its own, so that it can be killed: `ADDRESS-AS-JSON FOLDER`, with a lease of a second.
const [address = '', folder = ''] = process.argv.slice(2)
await migrate(connect(JSON.parse(address) as DatabaseAddress), folder, 1)
