/** How often something is done, as a form asks for it. */
export type Often = 'daily' | 'weekdays' | 'weekly' | 'own'

export const weekdayNames = [
  'Sunday',
  'Monday',
  'Tuesday',
  'Wednesday',
  'Thursday',
  'Friday',
  'Saturday',
] as const

/** The five fields of a pattern. @param time `06:30` @param weekday 0 is Sunday */
export const patternOf = (often: Exclude<Often, 'own'>, time: string, weekday: number): string => {
  const [hour = '0', minute = '0'] = time.split(':')
  const days = { daily: '*', weekdays: '1-5', weekly: String(weekday) }[often]
  return `${Number(minute)} ${Number(hour)} * * ${days}`
}

/** A pattern in words, as far as it is a simple one; otherwise as it stands. */
export const patternWords = (pattern: string): string => {
  const simple = /^(\d{1,2}) (\d{1,2}) \* \* (\*|1-5|[0-6])$/.exec(pattern)
  if (!simple) return pattern
  const [, minute = '', hour = '', days = ''] = simple
  const at = `at ${hour.padStart(2, '0')}:${minute.padStart(2, '0')}`
  if (days === '*') return `every day ${at}`
  return days === '1-5' ? `Monday to Friday ${at}` : `every ${weekdayNames[Number(days)]} ${at}`
}
