import { blockMarker, partMarker } from './analysePage.ts'

const marks = new RegExp(` (?:${blockMarker}|${partMarker})="[^"]*"`, 'g')

/** HTML without the marks of a deployment. */
export const withoutMarks = (html: string): string => html.replace(marks, '')
