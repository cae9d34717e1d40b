/** What a spreadsheet would take for a formula when it opens the file. */
const formula = /^[=+\-@\t\r]/

/**
 * Rows as a CSV file (RFC 4180: quoted where need be, lines end in CR LF), in UTF-8 with a mark at its beginning by which
 * spreadsheets know it. A value that they would run as a formula is written as text.
 */
export const writeTable = (rows: readonly (readonly string[])[]): string =>
  `\ufeff${rows
    .map((row) =>
      row
        .map((value) => {
          const text = formula.test(value) ? `'${value}` : value
          return /[",\r\n]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text
        })
        .join(','),
    )
    .join('\r\n')}\r\n`
