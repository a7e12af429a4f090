import AxeBuilder from '@axe-core/playwright'
import { expect } from '@playwright/test'
import { signIn, test } from './people'

test('a colleague is invited, joins by the link, is made a lead, and chooses a new password', async ({ browser }) => {
  const rafe = await signIn(browser, 'rafe')
  await rafe.goto('/set-up/people')
  await rafe.getByRole('button', { name: 'Invite a colleague' }).click()
  const dialog = rafe.getByRole('dialog')
  await dialog.getByLabel('Name', { exact: true }).fill('Tove Åström')
  await dialog.getByLabel('Mail address').fill('ada@pannier.example')
  await dialog.getByRole('button', { name: 'Make a link' }).click()
  await expect(dialog.getByText('Ada Lund signs in with this address.')).toBeVisible()
  await dialog.getByLabel('Mail address').fill('tove@pannier.example')
  await dialog.getByLabel('Recruiting').check()
  expect((await new AxeBuilder({ page: rafe }).analyze()).violations).toEqual([])
  await dialog.getByRole('button', { name: 'Make a link' }).click()
  await expect(dialog.getByText('It works once')).toBeVisible()
  const link = new URL(await dialog.getByRole('textbox', { name: 'The link' }).inputValue())
  await rafe.keyboard.press('Escape')
  await expect(rafe.getByRole('heading', { name: 'Were given a link' })).toBeVisible()
  await expect(rafe.locator('.p-dialog-mask')).toHaveCount(0)
  expect((await new AxeBuilder({ page: rafe }).analyze()).violations).toEqual([])

  const tove = await (await browser.newContext()).newPage()
  await tove.goto(link.pathname + link.hash)
  await expect(tove.getByRole('heading', { name: 'Join Pannier & Post' })).toBeVisible()
  await tove.getByLabel(/^Password/).fill('short')
  await tove.getByRole('button', { name: 'Join' }).click()
  await expect(tove.getByText('At least 12 characters')).toBeVisible()
  expect((await new AxeBuilder({ page: tove }).analyze()).violations).toEqual([])
  await tove.getByLabel(/^Password/).fill('four words of my own')
  await tove.getByRole('button', { name: 'Join' }).click()
  await expect(tove.getByText('Tove Åström')).toBeVisible()
  await expect(tove.getByRole('link', { name: 'Set-up' })).toBeHidden()

  // the link brings nobody in a second time
  const other = await (await browser.newContext()).newPage()
  await other.goto(link.pathname + link.hash)
  await expect(other.getByText('It was used already')).toBeVisible()

  // what she may do changes with her next click, and nothing has to be opened anew
  await rafe.reload()
  await rafe.getByRole('button', { name: 'Change Tove Åström' }).click()
  await dialog.getByRole('radio', { name: 'Lead' }).check()
  await dialog.getByRole('button', { name: 'Save' }).click()
  await expect(dialog).toBeHidden()
  await tove.reload()
  await expect(tove.getByRole('link', { name: 'Set-up' })).toBeVisible()

  await rafe.getByRole('button', { name: 'A new password for Tove Åström' }).click()
  const second = new URL(await dialog.getByRole('textbox', { name: 'The link' }).inputValue())
  await other.goto('/sign-in')
  await other.goto(second.pathname + second.hash)
  await other.getByLabel(/^Password/).fill('other words of my own')
  await other.getByRole('button', { name: 'Take this password' }).click()
  await expect(other.getByText('Tove Åström')).toBeVisible()
  // where she was signed in before she is not any more
  await tove.reload()
  await expect(tove.getByRole('button', { name: 'Sign in' })).toBeVisible()
})
