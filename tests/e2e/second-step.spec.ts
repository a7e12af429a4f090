import { expect, type Page } from '@playwright/test'
import { Secret, TOTP } from 'otpauth'
import { expectAccessible } from './accessible'
import { signIn, test } from './people'

const PASSWORD = 'four words of my own'
const MAIL = 'lena@pannier.example'

/** A code is used once: each is one of a period that has not been used yet. */
let used = 0
function nextCode(secret: string): string {
  const period = Math.max(Math.floor(Date.now() / 30_000) - 1, used + 1)
  used = period
  return new TOTP({ secret: Secret.fromBase32(secret) }).generate({ timestamp: period * 30_000 })
}

async function join(admin: Page, page: Page): Promise<void> {
  const invited = await admin.request.post('/api/set-up/people/invitations', {
    data: { id: crypto.randomUUID(), name: 'Lena Quist', mail: MAIL, role: 'rep', title: 'Sales', teamIds: [] },
  })
  const { hash, pathname } = new URL((await invited.json() as { link: string }).link)
  await page.goto(pathname + hash)
  await page.getByLabel(/^Password/).fill(PASSWORD)
  await page.getByRole('button', { name: 'Join' }).click()
  await expect(page.getByText('Lena Quist')).toBeVisible()
}

async function typePassword(page: Page): Promise<void> {
  await page.goto('/sign-in')
  await page.getByLabel('Mail address').fill(MAIL)
  await page.getByLabel('Password').fill(PASSWORD)
  await page.getByRole('button', { name: 'Sign in' }).click()
}

test('a colleague sets a second step up, signs in with codes, and an admin helps when the telephone is lost', async ({ browser }) => {
  const rafe = await signIn(browser, 'rafe')
  const lena = await (await browser.newContext()).newPage()
  await join(rafe, lena)
  await lena.goto('/sign-ins')
  await lena.getByRole('button', { name: 'Set it up' }).click()
  await expect(lena.getByRole('img', { name: 'What the app reads with its camera' }).locator('svg')).toBeVisible()
  await expectAccessible(lena)
  const secret = (await lena.locator('code.secret').innerText()).replaceAll(' ', '')
  await lena.getByLabel('The code that the app shows then').fill('000000')
  await lena.getByRole('button', { name: 'It works' }).click()
  await expect(lena.getByText('This is not what the app shows.')).toBeVisible()
  await lena.getByLabel('The code that the app shows then').fill(nextCode(secret))
  await lena.getByRole('button', { name: 'It works' }).click()
  await expect(lena.getByText('10 recovery codes left')).toBeVisible()
  const codes = await lena.locator('.codes li').allInnerTexts()
  expect(codes).toHaveLength(10)
  await expectAccessible(lena)
  await lena.getByRole('button', { name: 'I have kept them' }).click()

  const elsewhere = await (await browser.newContext()).newPage()
  await typePassword(elsewhere)
  const code = elsewhere.getByLabel('The code that your app shows now')
  await expect(code).toBeFocused()
  await expectAccessible(elsewhere)
  await code.fill('111111')
  await elsewhere.keyboard.press('Enter')
  await expect(elsewhere.getByText('This is not the code that the app shows now.')).toBeVisible()
  await code.fill(nextCode(secret))
  await elsewhere.keyboard.press('Enter')
  await expect(elsewhere.getByText('Lena Quist')).toBeVisible()

  // without the telephone
  await elsewhere.context().clearCookies()
  await typePassword(elsewhere)
  await code.fill(codes[3]!)
  await elsewhere.keyboard.press('Enter')
  await expect(elsewhere.getByText('Lena Quist')).toBeVisible()
  await lena.reload()
  await expect(lena.getByText('9 recovery codes left')).toBeVisible()

  // and without anything
  await rafe.goto('/set-up/people')
  await rafe.getByRole('button', { name: 'Take the second step of Lena Quist away' }).click()
  await expectAccessible(rafe)
  await rafe.getByRole('button', { name: 'Remove it' }).click()
  await expect(rafe.getByRole('button', { name: 'Take the second step of Lena Quist away' })).toBeHidden()
  await elsewhere.context().clearCookies()
  await typePassword(elsewhere)
  await expect(elsewhere.getByText('Lena Quist')).toBeVisible()
})
