import { IANAZone } from 'luxon'
import { z } from 'zod'

/** The name of a time zone in the IANA database. */
export const TimeZone = z
  .string()
  .refine((zone) => IANAZone.isValidZone(zone), 'an IANA time zone such as America/Halifax')
