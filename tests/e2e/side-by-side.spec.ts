import { expect, type Page } from '@playwright/test'
import { expectAccessible } from './accessible'
import { freshNumber, makeLead, signIn, test, textsOnHandset, writeFromHandset } from './people'

const sheetOf = (page: Page, name: string) => page.getByRole('region', { name: /conversation/ }).filter({ has: page.getByRole('heading', { name }) })
const answerTo = (page: Page, name: string) => sheetOf(page, name).getByRole('textbox', { name: 'Answer' })

test('three conversations lie side by side, each with its answer, through a reload; what comes in waits at the edge', async ({ browser }) => {
  const page = await signIn(browser, 'ada')
  const [ash, birch, cedar] = [freshNumber(), freshNumber(), freshNumber()]
  for (const [name, number] of [['Flankash', ash], ['Flankbirch', birch], ['Flankcedar', cedar]] as const) {
    await makeLead(page.request, name, number)
    await writeFromHandset(page.request, number, `${name} asks.`)
  }
  await page.goto('/inbox?words=Flank')
  await expect(page.locator('.row')).toHaveCount(3)
  await page.locator('.row').filter({ hasText: 'Flankash' }).click()
  await expect(sheetOf(page, 'Flankash')).toBeVisible()
  await page.keyboard.press('p')
  await page.keyboard.press('j')
  await expect(sheetOf(page, 'Flankbirch')).toBeVisible()
  await page.keyboard.press('p')
  await page.keyboard.press('j')
  await expect(sheetOf(page, 'Flankcedar')).toBeVisible()
  await expect(page.locator('.beside')).toHaveCount(3)
  const places = () => page.locator('.beside').evaluateAll(all => all.map(one => one.getBoundingClientRect().left))

  for (const name of ['Flankash', 'Flankbirch', 'Flankcedar']) await expect(answerTo(page, name)).toBeVisible()
  await answerTo(page, 'Flankash').fill('Answer for Ash.')
  await page.keyboard.press('Alt+.')
  await expect(answerTo(page, 'Flankbirch')).toBeFocused()
  await page.keyboard.type('Answer for Birch.')
  await page.keyboard.press('Alt+.')
  await expect(answerTo(page, 'Flankcedar')).toBeFocused()
  await page.keyboard.type('Answer for Cedar.')
  await expectAccessible(page)

  const before = await places()
  await makeLead(page.request, 'Flankdouglas', cedar.replace(/\d{4}$/, '0199'))
  await writeFromHandset(page.request, cedar.replace(/\d{4}$/, '0199'), 'And a fourth.')
  await expect(page.getByRole('navigation', { name: 'What waits' }).getByRole('button', { name: /Flankdouglas/ })).toBeVisible()
  expect(await places()).toEqual(before)
  await expect(answerTo(page, 'Flankcedar')).toBeFocused()

  await page.reload()
  for (const name of ['Ash', 'Birch', 'Cedar']) await expect(answerTo(page, `Flank${name.toLowerCase()}`)).toHaveValue(`Answer for ${name}.`)

  // only the one that has the cursor is sent
  await answerTo(page, 'Flankbirch').focus()
  await page.keyboard.press('Control+Enter')
  await expect(sheetOf(page, 'Flankbirch').locator('.slip.ours')).toContainText('Answer for Birch.')
  await expect(answerTo(page, 'Flankbirch')).toHaveValue('')
  await expect.poll(async () => (await textsOnHandset(page.request, birch)).map(({ text }) => text)).toContain('Answer for Birch.')
  await expect(answerTo(page, 'Flankash')).toHaveValue('Answer for Ash.')
  await expect(answerTo(page, 'Flankcedar')).toHaveValue('Answer for Cedar.')

  await test.step('a key is for the one that is worked with, not for the one that was opened last', async () => {
    const pressed = (name: string) => sheetOf(page, name).getByRole('button', { name: /^(Keep|Kept) beside/ })
    await sheetOf(page, 'Flankash').getByRole('heading').click()
    await expect(sheetOf(page, 'Flankash')).toHaveAccessibleName('The open conversation')
    await page.keyboard.press('p')
    await expect(pressed('Flankash')).toHaveAttribute('aria-pressed', 'false')
    await expect(pressed('Flankbirch')).toHaveAttribute('aria-pressed', 'true')
    await page.keyboard.press('p')
    await expect(pressed('Flankash')).toHaveAttribute('aria-pressed', 'true')
  })

  await test.step('the list is a press away, and what is kept is found again', async () => {
    await page.getByRole('button', { name: 'The whole list' }).click()
    await expect(page.locator('.row').filter({ hasText: 'Flankcedar' })).toBeVisible()
    await page.getByRole('button', { name: 'Back to 2 conversations kept beside' }).click()
    await expect(page.locator('.beside')).toHaveCount(2)
    await sheetOf(page, 'Flankash').getByRole('heading').click()
    // the address says which one is open, and follows a moment later
    await expect(sheetOf(page, 'Flankash')).toHaveAccessibleName('The open conversation')
    await page.keyboard.press('Escape')
    await expect(page.locator('.beside')).toHaveCount(1)
    await expect(sheetOf(page, 'Flankbirch')).toBeVisible()
  })
})

test('on a telephone the one that is worked with has the width', async ({ browser }) => {
  const page = await signIn(browser, 'ada', { viewport: { width: 390, height: 800 } })
  for (const name of ['Narrowash', 'Narrowbirch']) {
    const number = freshNumber()
    await makeLead(page.request, name, number)
    await writeFromHandset(page.request, number, `${name} asks.`)
  }
  await page.goto('/inbox?words=Narrow')
  await page.locator('.row').filter({ hasText: 'Narrowash' }).click()
  await page.getByRole('button', { name: /^Keep beside/ }).click()
  await page.keyboard.press('j')
  await expect(sheetOf(page, 'Narrowbirch')).toBeVisible()
  await expect(sheetOf(page, 'Narrowash')).toBeHidden()
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390)
  await page.keyboard.press('Alt+,')
  await expect(sheetOf(page, 'Narrowash')).toBeVisible()
  await page.getByRole('button', { name: 'To the list' }).filter({ visible: true }).click()
  await expect(page.locator('.row').filter({ hasText: 'Narrowbirch' })).toBeVisible()
})
