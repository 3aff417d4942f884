import AxeBuilder from 'axe-core'
import type { Page } from 'playwright-core'

/** WCAG 2.2, levels A and AA, and what is good practice besides. */
const TAGS = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice']

/** What axe finds on a page: its rules, each with the first element that breaks it. */
export async function flawsOf(page: Page): Promise<string[]> {
  // By the debugger, as the policy of a page may allow no script from elsewhere.
  await page.evaluate(AxeBuilder.source)
  return page.evaluate(async tags => {
    const { axe } = window as unknown as {
      axe: {
        run(options: object): Promise<{ violations: { id: string; nodes: { html: string }[] }[] }>
      }
    }
    const { violations } = await axe.run({ runOnly: tags, rules: { 'target-size': { enabled: true } } })
    return violations.map(one => `${one.id}: ${one.nodes[0].html.slice(0, 200)}`)
  }, TAGS)
}
