import AxeBuilder from '@axe-core/playwright'
import { expect, type Page } from '@playwright/test'

const TAGS = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice']

/**
 * Holds that axe finds nothing on the page as it stands: everything by light; in the dark nothing but the colours is another.
 *
 * There are no frames of other origins, so that one page is enough for the whole run, and nobody reads what passed: both
 * cost more than the checks.
 */
export async function expectAccessible(page: Page): Promise<void> {
  const axe = new AxeBuilder({ page }).setLegacyMode(true).options({ resultTypes: ['violations'] })
  const isDark = await page.evaluate(() => matchMedia('(prefers-color-scheme: dark)').matches)
  const { violations } = await (isDark ? axe.withRules(['color-contrast']) : axe.withTags(TAGS)).analyze()
  expect(violations.map(({ id, nodes }) => ({ id, at: nodes.slice(0, 5).map(node => node.html) }))).toEqual([])
}
