import { defineConfig } from '@playwright/test'

export default defineConfig({
  testDir: '.',
  outputDir: '../../artifacts/e2e',
  workers: 1,
  // generous: they end only what hangs, on a machine that has much else to do too
  timeout: 240_000,
  expect: { timeout: 60_000 },
  forbidOnly: true,
  reporter: [['line'], ['json', { outputFile: '../../artifacts/e2e.json' }]],
  maxFailures: 8,
  use: {
    actionTimeout: 60_000,
    viewport: { width: 1280, height: 800 },
    screenshot: 'only-on-failure',
    launchOptions: {
      executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--font-render-hinting=none',
        '--disable-gpu',
        '--use-angle=swiftshader',
        '--enable-unsafe-swiftshader',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
})
