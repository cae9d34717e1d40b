import type { ReportFormatName } from '@wickerframe/contract'
import { Menu } from './menu.tsx'

const forms: readonly { value: ReportFormatName; text: string }[] = [
  { value: 'html', text: 'A page to print' },
  { value: 'xlsx', text: 'Spreadsheet (XLSX)' },
  { value: 'csv', text: 'Table (CSV)' },
  { value: 'json', text: 'Everything (JSON)' },
  { value: 'sarif', text: 'For other programs (SARIF)' },
  { value: 'earl', text: 'For evaluation tools (EARL)' },
]

/** A report in the form somebody chooses: a page opens in a tab of its own, a file is kept. */
export const ReportMenu = ({
  label,
  addressOf,
}: {
  label: string
  addressOf: (format: ReportFormatName) => string
}) => (
  <Menu
    label={label}
    shape="word"
    className="py-0!"
    groups={[{ items: forms }]}
    onPick={(format) =>
      window.open(addressOf(format), format === 'html' ? '_blank' : '_self', 'noreferrer')
    }
  />
)
