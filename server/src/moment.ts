/** A DATETIME as MariaDB gives it (UTC, no zone) as an ISO 8601 instant. */
export const instantOfRow = (text: string): string => `${text.replace(' ', 'T')}Z`
/** An ISO 8601 instant as a DATETIME(3) in UTC. */
export const rowOfInstant = (instant: string): string =>
  new Date(instant).toISOString().slice(0, 23).replace('T', ' ')
/** A stamp of the machine's clock by the institution's, as people are shown it; SQL. */
export const byInstitution = (column: string): string =>
  `TIMESTAMPADD(SECOND, @institution_offset, ${column})`
