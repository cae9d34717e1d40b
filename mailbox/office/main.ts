import { startPracticeMailbox } from './office.ts'

// The practice mailbox: for demonstrations and tests, on loopback, never in production.
const mailbox = await startPracticeMailbox({
  smtpPort: Number(process.env['MAILBOX_PORT'] ?? 0),
  pagePort: Number(process.env['MAILBOX_PAGE_PORT'] ?? 0),
})
console.log(JSON.stringify({ listening: Number(new URL(mailbox.page).port) }))
const stop = () => void mailbox.stop().then(() => process.exit(0))
process.on('SIGTERM', stop)
process.on('SIGINT', stop)
