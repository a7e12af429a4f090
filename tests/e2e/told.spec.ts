import { expect, type Page } from '@playwright/test'
import { expectAccessible } from './accessible'
import { freshNumber, makeLead, signIn, test, writeFromHandset } from './people'

/** Stands in for the browser's notifications, which a browser without a screen does not have, and for another window in front. */
async function watchNotifications(page: Page): Promise<void> {
  await page.addInitScript(() => {
    const shown: { title: string, body: string, click: () => void }[] = []
    Object.assign(window, { shown })
    document.hasFocus = () => false
    window.Notification = class extends EventTarget {
      static permission = 'granted'
      static requestPermission = () => Promise.resolve('granted' as const)
      constructor(title: string, { body = '' }: NotificationOptions = {}) {
        super()
        shown.push({ title, body, click: () => this.dispatchEvent(new Event('click')) })
      }

      close() {}
    } as unknown as typeof Notification
  })
}
interface Watched { shown: { title: string, body: string, click: () => void }[] }
const shown = (page: Page) =>
  page.evaluate(() => (window as unknown as Watched).shown.map(({ title, body }) => ({ title, body })))

test('whoever switches notifications on is told who has written, and one click leads to the conversation', async ({ browser }) => {
  const mika = await signIn(browser, 'mika')
  await watchNotifications(mika)
  const number = freshNumber()
  await makeLead(mika.request, 'Notified', number)
  await mika.goto('/told')
  await writeFromHandset(mika.request, number, 'Before it was switched on')
  // that it is there by itself says that the page hears of what comes in
  await expect(mika.getByRole('region', { name: 'Shelf' })).toContainText('Notified Testaway')
  await expect(mika).toHaveTitle(/^\(\d+\) Plauder/)
  expect(await shown(mika)).toEqual([])
  await mika.getByText('The browser’s notifications').click()
  await expect(mika.getByRole('switch', { name: /notifications/ })).toBeChecked()
  await writeFromHandset(mika.request, number, 'And after')
  await expect.poll(() => shown(mika)).toEqual([{ title: 'Notified Testaway waits for an answer', body: 'Portland line' }])
  expect(mika.url()).toContain('/told')
  await mika.evaluate(() => (window as unknown as Watched).shown[0]!.click())
  await expect(mika).toHaveURL(/\/inbox\?with=/)
  await expect(mika.getByRole('textbox', { name: 'Answer' })).toBeFocused()
  await expect(mika.getByRole('region', { name: 'The open conversation' })).toContainText('And after')

  await test.step('while names are hidden no notification says one', async () => {
    await mika.getByRole('heading', { name: 'Inbox' }).click()
    await mika.keyboard.press('h')
    await writeFromHandset(mika.request, number, 'And hidden')
    await expect.poll(async () => (await shown(mika)).at(-1)).toEqual({ title: 'Somebody waits for an answer', body: 'Portland line' })
    await mika.keyboard.press('h')
  })
})

test('one key hides all names, numbers and words on every page, also after a reload, until it is pressed again', async ({ browser }) => {
  const ada = await signIn(browser, 'ada')
  const id = await makeLead(ada.request, 'Hiddenly', freshNumber())
  const readable = (page: Page) => page.evaluate(() => {
    const seen = (element: Element) => getComputedStyle(element).webkitTextFillColor !== 'rgba(0, 0, 0, 0)'
    const says = (element: Element) => [...element.childNodes].some(node => node.nodeType === Node.TEXT_NODE && node.textContent!.trim() !== '')
    return [...document.querySelectorAll('#page *, .strip *, .line *')]
      .filter(one => says(one) && seen(one) && !one.closest('thead, legend, kbd, nav')).map(one => one.textContent)
  })
  for (const path of ['/', `/record/${id}`, '/records/leads', '/inbox', '/calling', '/templates', '/drafts']) {
    await ada.goto(path)
    await expect(ada.locator('#page').getByRole('heading').first()).toBeVisible()
    if (path === '/') await ada.keyboard.press('h')
    await expect(ada.getByText('Names, numbers and words are hidden.')).toBeVisible()
    expect(await readable(ada)).toEqual([])
    expect(await ada.locator('#page').getByText('Hiddenly').evaluateAll(all =>
      all.filter(one => getComputedStyle(one).webkitTextFillColor !== 'rgba(0, 0, 0, 0)').length)).toBe(0)
  }
  await ada.keyboard.press('Control+Shift+H')
  await expect(ada.getByText('Names, numbers and words are hidden.')).toBeHidden()
  expect((await readable(ada)).length).toBeGreaterThan(0)
})

test('past notices say what is new, and lead to the answer, at a phone’s width too', async ({ browser }) => {
  const mika = await signIn(browser, 'mika')
  await mika.setViewportSize({ width: 390, height: 844 })
  const number = freshNumber()
  await makeLead(mika.request, 'Noticed', number)
  await mika.goto('/inbox/notices')
  await expect(mika.getByRole('heading', { name: 'Notices' })).toBeVisible()
  await writeFromHandset(mika.request, number, 'Which tyres are these?')
  const notice = mika.getByRole('link', { name: /Noticed Testaway Which tyres/ })
  await expect(notice).toContainText('Not seen')
  await expect(notice).toContainText('waits')
  await expectAccessible(mika)
  await notice.click()
  await expect(mika.getByRole('textbox', { name: 'Answer' })).toBeFocused()
  expect(await mika.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390)
  await mika.goBack()
  await expect(notice).not.toContainText('Not seen')
})
