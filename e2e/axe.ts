/** What assistive technology would trip over, by axe. */
import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import type { Page } from '@playwright/test'

const axeSource = readFileSync(
  createRequire(import.meta.url).resolve('axe-core/axe.min.js'),
  'utf8',
)

const WCAG = { type: 'tag', values: ['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa'] }
const CONTRAST = { type: 'rule', values: ['color-contrast'] }

/**
 * Serious and critical violations of WCAG 2.2 AA on the page.
 * @param what all that axe knows, or only the contrast: of what was looked at as a whole, that is what another scheme changes
 */
export async function violations(page: Page, what: 'all' | 'contrast' = 'all'): Promise<string[]> {
  await page.evaluate(axeSource)
  return page.evaluate(
    async (runOnly) => {
      const axe = (
        window as unknown as {
          axe: {
            run: (o: object) => Promise<{
              violations: { id: string; impact: string; nodes: { target: string[] }[] }[]
            }>
          }
        }
      ).axe
      const { violations: found } = await axe.run({ runOnly })
      return found
        .filter((v) => v.impact === 'serious' || v.impact === 'critical')
        .map(
          (v) =>
            `${v.id}: ${v.nodes
              .map((n) => n.target.join(' '))
              .slice(0, 3)
              .join(' | ')}`,
        )
    },
    what === 'all' ? WCAG : CONTRAST,
  )
}
