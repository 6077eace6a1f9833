import { defineConfig } from '@playwright/test'

const args = [
  '--no-sandbox',
  '--disable-quic',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  '--no-first-run',
  '--autoplay-policy=no-user-gesture-required',
  '--use-fake-ui-for-media-stream',
  '--use-fake-device-for-media-stream',
]

export default defineConfig({
  testDir: 'e2e',
  outputDir: 'test-results',
  workers: 2,
  // Long enough for the longest on a machine that lends its cores to others: what a test asks is never how fast it is.
  timeout: 240_000,
  // One that fails is tried once more and named as flaky: machines of two cores are slow for moments.
  retries: 1,
  expect: { timeout: 30_000 },
  reporter: 'list',
  // What keeps the application for a server that is out of reach takes a quarter of a page's first seconds: where it is tried it is let in.
  use: {
    baseURL: process.env.HELIASTER_URL,
    serviceWorkers: 'block',
    trace: 'on-first-retry',
    launchOptions: { executablePath: '/usr/bin/chromium-headless-shell', args },
  },
  projects: [
    {
      // Before the others put their kits into the list that the first screen brings.
      name: 'light',
      testMatch: /light\.spec\.ts/,
      use: { viewport: { width: 1280, height: 800 } },
    },
    {
      name: 'phone',
      testMatch: /(phone|both|recording|everyone|hands|groove-touch)\.spec\.ts/,
      use: { viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true, deviceScaleFactor: 2 },
    },
    {
      name: 'wide',
      testMatch:
        /(wide|both|everyone|hands|gather|cut|water-line|board|keeping|shape|performances|groove|mix|matter|slices|starts)\.spec\.ts/,
      use: { viewport: { width: 1280, height: 800 } },
    },
  ],
})
