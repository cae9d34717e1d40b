/** Where a page of a template is written at full width, for a course it is worked out for. */
export const pageAddress = (template: string, part: string, course: string | null): string =>
  `/templates/${template}/pages/${part}${course ? `?course=${course}` : ''}`
