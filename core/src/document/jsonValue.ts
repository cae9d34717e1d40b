import { z } from 'zod'

/** Any JSON value: what is carried along without being looked into. */
export const JsonValue = z.json()
export type JsonValue = z.output<typeof JsonValue>
