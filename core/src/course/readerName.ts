import { Line } from '../document/index.ts'

/** What a platform shows as the first name of whoever reads a page, where it stands in the page. */
export const ReaderName = Line(60).regex(
  /^[^<>&"'\s](?:[^<>&"'\p{Cc}]*[^<>&"'\s])?$/u,
  'words without the marks of HTML (< > & and quotation marks), and without spaces around them',
)
