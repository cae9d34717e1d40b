/**
 * Success criteria that our rules about access rest on, with the place of each in the Recommendation.
 * Source: W3C, Web Content Accessibility Guidelines (WCAG) 2.2; titles and anchors from memory.
 */
export const successCriteria = {
  '1.1.1': { title: 'Non-text Content', anchor: 'non-text-content' },
  '1.2.2': { title: 'Captions (Prerecorded)', anchor: 'captions-prerecorded' },
  '1.3.1': { title: 'Info and Relationships', anchor: 'info-and-relationships' },
  '1.4.1': { title: 'Use of Color', anchor: 'use-of-color' },
  '1.4.3': { title: 'Contrast (Minimum)', anchor: 'contrast-minimum' },
  '2.4.4': { title: 'Link Purpose (In Context)', anchor: 'link-purpose-in-context' },
  '2.4.6': { title: 'Headings and Labels', anchor: 'headings-and-labels' },
  '3.1.1': { title: 'Language of Page', anchor: 'language-of-page' },
  '3.1.2': { title: 'Language of Parts', anchor: 'language-of-parts' },
} as const
export type SuccessCriterion = keyof typeof successCriteria

/** Where a success criterion is published. */
export const addressOfCriterion = (criterion: SuccessCriterion): string =>
  `https://www.w3.org/TR/WCAG22/#${successCriteria[criterion].anchor}`

/** A sentence that ends with the success criteria it rests on: `… (WCAG 2.2, 1.1.1 Non-text Content).` */
export const withCriteria = (sentence: string, criteria: readonly SuccessCriterion[]): string =>
  criteria.length === 0
    ? sentence
    : `${sentence.replace(/\.$/, '')} (WCAG 2.2, ${criteria
        .map((criterion) => `${criterion} ${successCriteria[criterion].title}`)
        .join(' and ')}).`
