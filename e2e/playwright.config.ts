import { defineConfig } from '@playwright/test'

export default defineConfig({
  testDir: './tests',
  outputDir: '../test-results',
  // A shared machine is at times several times slower than at others.
  timeout: 150_000,
  expect: { timeout: 30_000 },
  fullyParallel: true,
  workers: 3,
  // A shared machine can stall for longer than any patience; a second run tells a stall from a fault.
  retries: process.env.CI ? 1 : 0,
  reporter: [['list']],
  use: {
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: '/usr/bin/chromium-headless-shell',
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
})
