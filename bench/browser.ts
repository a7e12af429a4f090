import { chromium, type Browser, type Page } from '@playwright/test'
import { DEMO_PASSWORD } from '../demo/lay'
import { chromiumOptions } from '../scripts/chromium.mjs'
import { percentile } from './support'

export const openBrowser = (): Promise<Browser> => chromium.launch(chromiumOptions())

export async function signIn(browser: Browser, address: string, who: string): Promise<Page> {
  const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage()
  await page.request.post(`${address}/api/sign-in`, { data: { mail: `${who}@pannier.example`, password: DEMO_PASSWORD } })
  return page
}

/** From here on the page notes, for every key, when what it did had been painted. */
export async function watchKeys(page: Page): Promise<void> {
  await page.evaluate(() => {
    const seen: number[] = []
    Object.assign(window, { keysToPaint: seen })
    document.addEventListener(
      'keydown',
      event => requestAnimationFrame(() => setTimeout(() => seen.push(performance.now() - event.timeStamp), 0)),
      { capture: true },
    )
  })
}

/** Types, a key at a time, and gives the milliseconds from each key to its paint. */
export async function typeAndWatch(page: Page, words: string): Promise<number[]> {
  await page.evaluate(() => void ((window as unknown as { keysToPaint: number[] }).keysToPaint.length = 0))
  for (const key of words) {
    await page.keyboard.press(key === ' ' ? 'Space' : key)
    await page.waitForTimeout(60)
  }
  return page.evaluate(() => [...(window as unknown as { keysToPaint: number[] }).keysToPaint])
}

export const sayTimes = (samples: number[]) =>
  `p50 ${percentile(samples, 0.5).toFixed(0)} ms, p95 ${percentile(samples, 0.95).toFixed(0)} ms over ${samples.length}`
