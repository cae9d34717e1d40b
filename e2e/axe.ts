import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import type { Page } from 'playwright-core'

const axeSource = readFileSync(
  createRequire(import.meta.url).resolve('axe-core/axe.min.js'),
  'utf8',
)

interface Violation {
  id: string
  impact: string
  nodes: { html: string }[]
}
/** Violations of WCAG 2.2 A and AA that axe-core calls serious or critical. */
export const violations = async (on: Page): Promise<string[]> => {
  await on.evaluate(axeSource)
  const found = (await on.evaluate(
    "axe.run(document, { runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'], resultTypes: ['violations'], preload: false, selectors: false, iframes: false }).then((r) => r.violations)",
  )) as Violation[]
  return found
    .filter(({ impact }) => impact === 'serious' || impact === 'critical')
    .map(
      ({ id, nodes }) =>
        `${id}: ${nodes
          .slice(0, 3)
          .map((node) => node.html.slice(0, 160))
          .join(' | ')}`,
    )
}
