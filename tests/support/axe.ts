import AxeBuilder from 'axe-core'
import type { Page } from 'playwright-core'

/** What axe finds on a page: its rules, each with the first element that breaks it. */
export async function flawsOf(page: Page): Promise<string[]> {
  // By the debugger, as the policy of a page may allow no script from elsewhere.
  await page.evaluate(AxeBuilder.source)
  return page.evaluate(async () => {
    const { axe } = window as unknown as {
      axe: { run(): Promise<{ violations: { id: string; nodes: { html: string }[] }[] }> }
    }
    const { violations } = await axe.run()
    return violations.map(one => `${one.id}: ${one.nodes[0].html.slice(0, 200)}`)
  })
}
