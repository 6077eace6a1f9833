import AxeBuilder from '@axe-core/playwright'
import type { Page } from '@playwright/test'

const TARGET_PX = 44

/**
 * What axe finds, with every rule it has: on the phone places by day and sheets by night, on the wide screen the other
 * way round. An open sheet is looked at alone, since what lies under it was before.
 */
async function axeFindings(page: Page): Promise<string[]> {
  const isPhone = page.viewportSize()!.width < 800
  const hasSheet = (await page.getByRole('dialog').count()) > 0
  await page.emulateMedia({ colorScheme: isPhone !== hasSheet ? 'light' : 'dark', reducedMotion: 'reduce' })
  // No page of ours has frames, and nobody reads what was found to be well: without both it is four times as quick.
  const builder = new AxeBuilder({ page, ...(await withoutAxe(page)) }).setLegacyMode(true).options({ resultTypes: ['violations'] })
  if (hasSheet) builder.include('[role=dialog]')
  const { violations } = await builder.analyze()
  return violations.flatMap(({ id, nodes }) =>
    nodes.map((node) => `${id}: ${node.html.replace(/ (style|class)="[^"]*"/g, '').slice(0, 200)}`),
  )
}

/** A page that has axe from a look before need not be given its megabyte twice more. */
async function withoutAxe(page: Page): Promise<{ axeSource?: string }> {
  return (await page.evaluate(() => 'axe' in window)) ? { axeSource: ';' } : {}
}

/** Runs in the page: what is pressed, typed or slid and has less room than a finger needs, and what a key's focus does not show. */
function smallTargets(least: number): string[] {
  const dialogs = Array.from(document.querySelectorAll('[role=dialog]'))
  const root = dialogs.at(-1) ?? document.body
  const wanted =
    'a[href],button,input,textarea,select,[role=button],[role=radio],[role=checkbox],[role=switch],[role=slider],[role=link],[role=tab],[role=menuitem]'
  const small: string[] = []
  for (const element of Array.from(root.querySelectorAll<HTMLElement>(wanted))) {
    const box = element.getBoundingClientRect()
    if (box.width === 0 || box.height === 0) continue
    // What a finger meets: the element itself, or a wider one in it or round it that presses it too.
    const met = [element, element.querySelector(':scope > [data-reach]'), element.closest('[data-reach]')].flatMap((one) =>
      one ? [one.getBoundingClientRect()] : [],
    )
    const [width, height] = [Math.max(...met.map((one) => one.width)), Math.max(...met.map((one) => one.height))]
    // Steps of a groove lie as beats do, side by side: their place is their meaning, and each is 44 px high.
    const isStep = /, step \d+/.test(element.getAttribute('aria-label') ?? '') && element.getAttribute('role') === 'checkbox'
    if (isStep && height >= least - 0.5) continue
    if (width >= least - 0.5 && height >= least - 0.5) continue
    small.push(
      `target: ${(element.getAttribute('aria-label') ?? element.textContent ?? '').slice(0, 60)} <${element.getAttribute('role') ?? element.tagName}> ${width.toFixed(0)} x ${height.toFixed(0)}`,
    )
  }
  return small
}

/** Runs in the page: words that are cut off, and a page wider than its window. */
export function lostWords(): string[] {
  const lost: string[] = []
  if (document.documentElement.scrollWidth > innerWidth + 1)
    lost.push(`wider than its window by ${document.documentElement.scrollWidth - innerWidth}`)
  const dialogs = Array.from(document.querySelectorAll('[role=dialog]'))
  const root = dialogs.at(-1) ?? document.body
  for (const element of Array.from(root.querySelectorAll<HTMLElement>('*'))) {
    if (!Array.from(element.childNodes).some((node) => node.nodeType === 3 && node.textContent!.trim())) continue
    const box = element.getBoundingClientRect()
    if (box.width === 0) continue
    const style = getComputedStyle(element)
    if (style.overflowX !== 'visible' && style.textOverflow !== 'ellipsis' && element.scrollWidth > element.clientWidth + 1)
      lost.push(`cut off: ${element.textContent!.slice(0, 60)} (${element.clientWidth} of ${element.scrollWidth})`)
  }
  return lost
}

/** Everything that keeps someone out of what is on screen. */
export async function findings(page: Page): Promise<string[]> {
  return [...(await axeFindings(page)), ...(await page.evaluate(smallTargets, TARGET_PX)), ...(await page.evaluate(lostWords))]
}

/** Runs in the page: what the keyboard has reached, and whether it shows. */
export function focused(): { name: string; shows: boolean } | undefined {
  const element = document.activeElement
  if (!element || element === document.body) return undefined
  const { outlineStyle, outlineWidth } = getComputedStyle(element)
  const shows = outlineStyle !== 'none' && parseFloat(outlineWidth) > 0
  return { name: element.getAttribute('aria-label') ?? element.textContent ?? '', shows }
}
