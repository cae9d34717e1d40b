/**
 * The two clocks, in SQL. `NOW(3)` is the machine's: leases, sessions, throttling, retries, and when links run out; nobody
 * moves it. This is the institution's: every stamp that people are shown. A demonstration moves it (see `connect`).
 */
export const institutionNow = 'TIMESTAMPADD(SECOND, @institution_offset, NOW(3))'
