import type { CDPSession, Page } from '@playwright/test'

export const SLOW_DOWN = 4

/** A page as a slow telephone has it. */
export async function throttle(page: Page): Promise<CDPSession> {
  const session = await page.context().newCDPSession(page)
  await session.send('Emulation.setCPUThrottlingRate', { rate: SLOW_DOWN })
  return session
}
