/** What assistive technology would trip over, by axe. */
import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import type { Page } from '@playwright/test'

const axeSource = readFileSync(
  createRequire(import.meta.url).resolve('axe-core/axe.min.js'),
  'utf8',
)

/** Serious and critical violations of WCAG 2.2 AA on the page. */
export async function violations(page: Page): Promise<string[]> {
  await page.evaluate(axeSource)
  return page.evaluate(async () => {
    const axe = (
      window as unknown as {
        axe: {
          run: (o: object) => Promise<{
            violations: { id: string; impact: string; nodes: { target: string[] }[] }[]
          }>
        }
      }
    ).axe
    const { violations: found } = await axe.run({
      runOnly: ['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa'],
    })
    return found
      .filter((v) => v.impact === 'serious' || v.impact === 'critical')
      .map(
        (v) =>
          `${v.id}: ${v.nodes
            .map((n) => n.target.join(' '))
            .slice(0, 3)
            .join(' | ')}`,
      )
  })
}
