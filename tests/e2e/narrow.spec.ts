import { expect, test } from './server'

const avocet = '/cards/0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a13'
const tabs = ['', '/measure-up/size', '/head', '/reach', '/motion', '/routines', '/gauges', '/trials', '/line', '/history']

// 640 px are what a window of 1280 has at 200 %
test("the card's pages hold together 400 and 640 px wide", async ({ page }) => {
  for (const address of ['/', '/patterns/tool-changer', ...tabs.map((tab) => avocet + tab)]) {
    await page.setViewportSize({ width: 400, height: 800 })
    await page.goto(address)
    await page.waitForLoadState('networkidle')
    for (const width of [400, 640]) {
      await page.setViewportSize({ width, height: 800 })
      const wide = await page.evaluate(() => [document.documentElement, ...document.querySelectorAll('main')].map((e) => e.scrollWidth))
      expect(wide.length, address).toBeGreaterThan(1)
      expect(Math.max(...wide), `${address}, ${width} px`).toBeLessThanOrEqual(width)
    }
  }
})
