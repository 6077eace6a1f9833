import { expect } from '@playwright/test'
import type { Page } from '@playwright/test'

/** A pad's face, wherever it is shown. */
export function pad(page: Page, name: string) {
  return page.getByRole('button', { name: new RegExp(`^${name}`) }).first()
}

/** What the engine has sounded: the status that every strike leaves, read from the lit cell in words. */
export async function openDemo(page: Page, place: string): Promise<void> {
  await page.goto(`/kit/demo-low-tide/${place}`)
  await expect(page.getByText('Low Tide').first()).toBeVisible()
}

export async function newKit(page: Page): Promise<void> {
  await page.goto('/')
  await page.getByRole('button', { name: 'New kit', exact: true }).click()
  await expect(page.getByRole('button', { name: 'Record', exact: true })).toBeVisible()
}

export async function saved(page: Page): Promise<void> {
  await expect(page.getByRole('status', { name: 'Saving: Saved', exact: true })).toBeVisible({ timeout: 30_000 })
}

/** A mono WAV of 16 bits with strikes at the given seconds. */
export function wavWithStrikes(seconds: number, strikes: readonly number[], rate = 48000): Buffer {
  const frames = Math.round(seconds * rate)
  const bytes = Buffer.alloc(44 + frames * 2)
  bytes.write('RIFF', 0)
  bytes.writeUInt32LE(36 + frames * 2, 4)
  bytes.write('WAVEfmt ', 8)
  bytes.writeUInt32LE(16, 16)
  bytes.writeUInt16LE(1, 20)
  bytes.writeUInt16LE(1, 22)
  bytes.writeUInt32LE(rate, 24)
  bytes.writeUInt32LE(rate * 2, 28)
  bytes.writeUInt16LE(2, 32)
  bytes.writeUInt16LE(16, 34)
  bytes.write('data', 36)
  bytes.writeUInt32LE(frames * 2, 40)
  let noise = 1
  const next = () => (noise = (Math.imul(noise, 1103515245) + 12345) >>> 0) / 2147483648 - 1
  for (let i = 0; i < frames; i++) bytes.writeInt16LE(Math.round(next() * 500), 44 + i * 2)
  for (const [index, at] of strikes.entries()) {
    const from = Math.round(at * rate)
    for (let i = 0; i < 0.25 * rate && from + i < frames; i++) {
      const sample =
        (Math.sin((2 * Math.PI * (180 + 90 * index) * i) / rate) + 0.3 * next()) * Math.exp(-i / (0.03 * rate)) * (30000 + 8000 * index)
      bytes.writeInt16LE(Math.max(-32768, Math.min(32767, Math.round(sample / 2))), 44 + (from + i) * 2)
    }
  }
  return bytes
}
