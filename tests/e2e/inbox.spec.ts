import AxeBuilder from '@axe-core/playwright'
import { expect, type Page } from '@playwright/test'
import { freshNumber, makeLead, signIn, test, writeFromHandset } from './people'

const axe = async (page: Page) => expect((await new AxeBuilder({ page }).analyze()).violations).toEqual([])
const row = (page: Page, name: string) => page.locator('.row').filter({ hasText: name })
const sheet = (page: Page) => page.getByRole('region', { name: 'The open conversation' })
const field = (page: Page) => sheet(page).getByRole('textbox', { name: 'Answer' })

/** Somebody who has written to the Portland line. */
async function wrote(page: Page, name: string, words: string): Promise<string> {
  const number = freshNumber()
  await makeLead(page.request, name, number)
  await writeFromHandset(page.request, number, words)
  return number
}

test('an evening’s conversations are worked off by keyboard alone: answered, put back, assigned, settled', async ({ browser }) => {
  const ada = await signIn(browser, 'ada')
  for (const name of ['Anouk', 'Bela', 'Cato', 'Dita']) await wrote(ada, name, `${name} asks whether it is still free`)
  await ada.goto('/')
  await expect(ada.getByText('owed by you')).toBeVisible()
  await ada.keyboard.press('g')
  await ada.keyboard.press('i')
  await expect(ada.getByRole('heading', { name: 'Inbox' })).toBeVisible()
  await expect(row(ada, 'Anouk')).toContainText('waits')
  await ada.getByLabel('Search the conversations').fill('whether it is still')
  await expect(ada.locator('.row')).toHaveCount(4)
  await ada.getByRole('heading', { name: 'Inbox' }).click()
  await axe(ada)

  await ada.keyboard.press('j')
  await expect(field(ada)).toBeVisible()
  await expect(sheet(ada).getByRole('heading')).toContainText('Anouk')
  await ada.keyboard.press('t')
  await ada.keyboard.type('It is. When does it suit you?')
  await ada.keyboard.press('Control+Enter')
  await expect(sheet(ada).locator('.slip.ours')).toBeVisible()
  await ada.getByRole('heading', { name: 'Inbox' }).click()
  await ada.keyboard.press('j')
  await expect(sheet(ada).getByRole('heading')).toContainText('Bela')

  await ada.keyboard.press('w')
  await ada.getByLabel('Why').fill('asks at the workshop first')
  await ada.getByLabel('Time', { exact: true }).fill('10:30')
  await expect(ada.getByRole('button', { name: 'Choose a day and a time' })).toBeDisabled()
  await ada.getByRole('button', { name: 'Next working morning' }).click()
  await expect(sheet(ada)).toContainText('It was put back until')
  await expect(row(ada, 'Bela')).toContainText('back')
  await ada.keyboard.press('j')
  await expect(sheet(ada).getByRole('heading')).toContainText('Cato')

  await ada.keyboard.press('a')
  await ada.getByLabel('To', { exact: true }).selectOption({ label: 'Mika Sand, Sales and client care' })
  await ada.getByLabel('Note').fill('knows these bikes better')
  await ada.getByRole('button', { name: 'Assign', exact: true }).click()
  await expect(sheet(ada)).toContainText('Mika has this conversation.')
  await axe(ada)
  await ada.keyboard.press('j')
  await expect(sheet(ada).getByRole('heading')).toContainText('Dita')
  await ada.keyboard.press('s')
  await expect(sheet(ada)).toContainText('said that no answer is needed')
  await expect(ada.getByRole('region', { name: 'Waiting, and with nobody yet' })).toBeHidden()

  await test.step('a reload and Back find it as it was', async () => {
    await ada.reload()
    await expect(sheet(ada).getByRole('heading')).toContainText('Dita')
    await expect(ada.locator('.row')).toHaveCount(4)
  })
  await test.step('the colleague has it, with the note, and gives it back', async () => {
    const mika = await signIn(browser, 'mika')
    await mika.goto('/inbox?words=Cato')
    await expect(mika.getByRole('region', { name: 'Waiting for you' })).toContainText('Cato')
    await row(mika, 'Cato').click()
    await expect(sheet(mika)).toContainText('knows these bikes better')
    await mika.getByRole('button', { name: 'Give it back' }).click()
    await expect(mika.getByRole('region', { name: 'Waiting, and with nobody yet' })).toContainText('Cato')
  })
})

test('of two colleagues who press Send at once the second sees the first answer and is asked', async ({ browser }) => {
  const [ada, mika] = [await signIn(browser, 'ada'), await signIn(browser, 'mika')]
  await wrote(ada, 'Twotimes', 'Is anybody there?')
  for (const [page, words] of [[ada, 'Yes, Ada here.'], [mika, 'Yes, Mika here.']] as const) {
    await page.goto('/inbox?words=Twotimes')
    await row(page, 'Twotimes').click()
    await field(page).fill(words)
  }
  // they see each other in it, before anybody has sent anything
  await expect(sheet(ada)).toContainText('Mika is writing.')
  await expect(sheet(mika)).toContainText('Ada is writing.')
  await Promise.all([ada, mika].map(page => page.keyboard.press('Control+Enter')))
  await expect.poll(async () => await ada.getByText('has answered since').count() + await mika.getByText('has answered since').count()).toBe(1)
  const second = await ada.getByText('has answered since').count() === 1 ? ada : mika
  await second.getByRole('button', { name: 'Send it anyway' }).click()
  await expect(sheet(second).locator('.slip.ours')).toHaveCount(2)
})

test('what came in is bold until I have seen it, on every page and in every window', async ({ browser }) => {
  const ada = await signIn(browser, 'ada')
  const number = await wrote(ada, 'Unseenly', 'First')
  await ada.goto('/inbox?words=Unseenly')
  await expect(row(ada, 'Unseenly')).toHaveClass(/unseen/)
  const other = await ada.context().newPage()
  const found = await (await ada.request.get('/api/find', { params: { words: 'Unseenly' } })).json() as { id: string }[]
  await other.goto(`/record/${found[0]!.id}`)
  await expect(other.getByText('First', { exact: true })).toBeVisible()
  await expect(row(ada, 'Unseenly')).not.toHaveClass(/unseen/)
  await expect(row(ada, 'Unseenly')).toContainText('waits')
  await other.close()
  await writeFromHandset(ada.request, number, 'Second')
  await expect(row(ada, 'Unseenly')).toHaveClass(/unseen/)
})

test('a new text is begun to somebody found by typing, and to a number on no record', async ({ browser }) => {
  const ada = await signIn(browser, 'ada')
  await makeLead(ada.request, 'Beginna', freshNumber())
  await ada.goto('/inbox')
  await expect(ada.getByRole('heading', { name: 'Inbox' })).toBeVisible()
  await ada.keyboard.press('c')
  await ada.getByRole('combobox', { name: 'To somebody' }).fill('Beginna')
  await ada.getByRole('option', { name: /Beginna/ }).first().click()
  await expect(sheet(ada).getByRole('heading')).toContainText('Beginna')
  await ada.getByRole('button', { name: 'New text' }).click()
  await ada.getByLabel('or to a number').fill('12')
  await ada.getByRole('button', { name: 'Write', exact: true }).click()
  await expect(ada.getByText('This number cannot be texted from a line of yours')).toBeVisible()
  await ada.getByLabel('or to a number').fill(freshNumber())
  await ada.getByRole('button', { name: 'Write', exact: true }).click()
  await expect(sheet(ada)).toContainText('On no record')
  await expect(field(ada)).toBeVisible()
})

test('what somebody asks for is proposed as a task: one key accepts it, one sends it away', async ({ browser }) => {
  const ada = await signIn(browser, 'ada')
  const number = await wrote(ada, 'Asking', 'Can you ring me tomorrow at 3?')
  await ada.goto('/inbox?words=Asking')
  await row(ada, 'Asking').click()
  await expect(sheet(ada)).toContainText('Asking asks for a call: “Can you ring me tomorrow at 3?”')
  await axe(ada)
  await ada.keyboard.press('y')
  await expect(sheet(ada)).not.toContainText('asks for a call')
  await expect(sheet(ada)).toContainText('Can you ring me tomorrow at 3?')
  await ada.keyboard.press('o')
  await expect(ada.getByRole('complementary', { name: 'About this record' })).toContainText('Call back: “Can you ring me tomorrow at 3?”')
  await writeFromHandset(ada.request, number, 'Bitte schicken Sie mir die Adresse')
  await expect(ada.getByText('Asking asks you to send something')).toBeVisible()
  await ada.getByRole('heading', { name: 'Asking Testaway' }).click()
  await ada.keyboard.press('u')
  await expect(ada.getByText('Asking asks you to send something')).toHaveCount(0)
})
