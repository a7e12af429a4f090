import AxeBuilder from '@axe-core/playwright'
import { expect, type Page } from '@playwright/test'
import { freshNumber, leadsNamed, makeLead, signIn, test, textsOnHandset, writeFromHandset } from './people'

const words = (page: Page) => page.getByRole('textbox', { name: 'Text', exact: true })
async function write(page: Page, text: string): Promise<void> {
  await words(page).click()
  await page.keyboard.type(text)
}
const sent = (page: Page) => page.getByRole('status').filter({ hasText: 'sent' })

test('by keyboard alone: a text to a list is written, checked, sent, and its answer is in the inbox', async ({ browser }) => {
  const page = await signIn(browser, 'ada')
  const numbers = Array.from({ length: 4 }, freshNumber)
  for (const [i, number] of numbers.entries()) await makeLead(page.request, ['Aldous', 'Bettina', 'Corin', 'Delphine'][i]!, number, { lastName: 'Bulkaway' })
  // the same telephone on another record, and somebody who has refused
  await makeLead(page.request, 'Zora', numbers[0]!, { lastName: 'Bulkaway' })
  await writeFromHandset(page.request, numbers[3]!, 'STOP')
  await expect.poll(async () => (await textsOnHandset(page.request, numbers[3]!)).length).toBe(2)

  await leadsNamed(page, 'Bulkaway', 5)
  await page.keyboard.press('Tab')
  await page.keyboard.press('r')
  await page.keyboard.press('t')
  const name = page.getByLabel('Name, for you and your colleagues')
  await expect(name).toBeFocused()
  await page.keyboard.press('Control+a')
  await page.keyboard.type('Winter tyres, Bulkaway')
  for (let i = 0; i < 3; i++) await page.keyboard.press('Tab')
  await expect(words(page)).toBeFocused()
  await page.keyboard.type('Hi {{first')
  await expect(page.getByRole('option', { name: /^First name/ })).toBeVisible()
  await page.keyboard.press('Enter')
  await page.keyboard.type(', Ada from Pannier & Post: shall we fit winter tyres?')
  expect((await new AxeBuilder({ page }).analyze()).violations).toEqual([])
  await page.keyboard.press('Control+Enter')

  await expect(page.getByRole('heading', { name: 'Winter tyres, Bulkaway' })).toBeVisible()
  const found = page.getByRole('region', { name: 'Checked, person by person' })
  await expect(found.getByRole('listitem').filter({ hasText: 'will get the text' })).toContainText('3')
  await expect(found.getByRole('listitem').filter({ hasText: 'opted out' })).toContainText('1')
  await expect(found.getByRole('listitem').filter({ hasText: 'shares a number' })).toContainText('1')
  const send = page.getByRole('button', { name: 'Send 3 texts now' })
  await expect(send).toBeVisible()
  expect((await new AxeBuilder({ page }).analyze()).violations).toEqual([])
  await send.press('Enter')
  await expect(sent(page)).toContainText('3 of 3 sent, done', { timeout: 20_000 })
  expect((await new AxeBuilder({ page }).analyze()).violations).toEqual([])
  // of the two with one telephone the first in the list has got it
  for (const [i, number] of numbers.slice(0, 3).entries()) {
    const [text, ...others] = await textsOnHandset(page.request, number)
    expect(text!.text).toMatch(new RegExp(`^Hi ${['(Aldous|Zora)', 'Bettina', 'Corin'][i]!}, Ada from Pannier & Post: shall we fit winter tyres\\?$`))
    expect(others).toEqual([])
  }
  expect((await textsOnHandset(page.request, numbers[3]!)).length).toBe(2)

  await writeFromHandset(page.request, numbers[1]!, 'Yes please, Tuesday')
  await page.goto('/inbox')
  await expect(page.getByRole('main').getByText('Yes please, Tuesday').first()).toBeVisible()
  // what was only sent in bulk lies in nobody's way
  await expect(page.getByRole('main').getByText('Aldous Bulkaway')).toHaveCount(0)
})

test('a bulk text is paused, goes on and is stopped; each gets it once or not at all', async ({ browser }) => {
  const page = await signIn(browser, 'ada')
  const numbers = Array.from({ length: 9 }, freshNumber)
  for (const number of numbers) await makeLead(page.request, 'Emeka', number, { lastName: 'Pauseaway' })
  await leadsNamed(page, 'Pauseaway', 9)
  await page.getByRole('button', { name: 'Text in bulk' }).click()
  await write(page, 'The workshop is open on Saturday. Ada, Pannier & Post')
  // what was typed outlives a reload
  await page.reload()
  await expect(words(page)).toContainText('open on Saturday')
  await page.getByRole('button', { name: 'Check everybody' }).click()
  await page.getByRole('button', { name: 'Send 9 texts now' }).click()
  await expect(sent(page)).toContainText(/^[2-9] of 9 sent/, { timeout: 20_000 })
  await page.getByRole('button', { name: 'Pause', exact: true }).click()
  await expect(sent(page)).toContainText('paused')
  const onHandsets = async () =>
    (await Promise.all(numbers.map(number => textsOnHandset(page.request, number)))).map(({ length }) => length)
  await page.waitForTimeout(2_500)
  const paused = (await onHandsets()).reduce((sum, count) => sum + count, 0)
  expect(paused).toBeLessThan(9)
  await page.waitForTimeout(2_500)
  expect((await onHandsets()).reduce((sum, count) => sum + count, 0)).toBe(paused)
  await page.getByRole('button', { name: 'Go on', exact: true }).click()
  await expect(sent(page)).toContainText('under way')
  await page.getByRole('button', { name: 'Stop', exact: true }).click()
  await expect(sent(page)).toContainText('stopped')
  await page.getByRole('button', { name: 'Go on', exact: true }).click()
  await expect(sent(page)).toContainText('9 of 9 sent, done', { timeout: 30_000 })
  expect(await onHandsets()).toEqual(numbers.map(() => 1))
  // a colleague of the team has nothing to see of it
  const mika = await signIn(browser, 'mika')
  await mika.goto(page.url())
  await expect(mika.getByText('There is no such bulk text')).toBeVisible()
})

test('the start is moved by key, and the plan with it; who was texted lately is taken out and put back', async ({ browser }) => {
  const page = await signIn(browser, 'ada')
  const numbers = [freshNumber(), freshNumber()]
  for (const number of numbers) await makeLead(page.request, 'Fenna', number, { lastName: 'Laterway' })
  for (const turn of [1, 2]) {
    await leadsNamed(page, 'Laterway', 2)
    await page.getByRole('button', { name: 'Text in bulk' }).click()
    await write(page, `Number ${turn}: the workshop is open. Ada, Pannier & Post`)
    await page.getByRole('button', { name: 'Check everybody' }).click()
    await expect(page.getByRole('button', { name: 'Send 2 texts now' })).toBeVisible()
    if (turn === 2) break
    await page.getByRole('button', { name: 'Send 2 texts now' }).click()
    await expect(sent(page)).toContainText('2 of 2 sent, done', { timeout: 20_000 })
  }
  const found = page.getByRole('region', { name: 'Checked, person by person' })
  await found.getByRole('listitem').filter({ hasText: 'in the last 3 days' }).getByRole('button', { name: 'Take out' }).click()
  await expect(found.getByRole('listitem').filter({ hasText: 'will get the text' })).toContainText('0')
  await found.getByRole('listitem').filter({ hasText: 'taken out by hand' }).getByRole('button', { name: 'See them' }).click()
  await page.getByRole('button', { name: 'Put Fenna Laterway back' }).first().click()
  await expect(page.getByRole('button', { name: 'Send 1 text now' })).toBeVisible()
  await page.getByRole('slider', { name: 'Start' }).press('PageDown')
  await expect(page.getByRole('button', { name: /^Send 1 text from / })).toBeVisible()
  await page.getByRole('button', { name: 'At once' }).click()
  await expect(page.getByRole('button', { name: 'Send 1 text now' })).toBeVisible()
  await page.goto('/bulk')
  await expect(page.getByRole('listitem').filter({ hasText: 'checked, not started' }).first()).toBeVisible()
})

test('whoever has not answered gets another one or becomes a group, and next month the same goes out again', async ({ browser }) => {
  const page = await signIn(browser, 'ada')
  const numbers = Array.from({ length: 3 }, freshNumber)
  for (const [i, number] of numbers.entries()) await makeLead(page.request, ['Adaeze', 'Benno', 'Ciara'][i]!, number, { lastName: 'Againaway' })
  const group = crypto.randomUUID()
  await page.request.put('/api/groups', { data: { id: group, name: 'To be called instead' } })
  await leadsNamed(page, 'Againaway', 3)
  await page.getByRole('button', { name: 'Text in bulk' }).click()
  await write(page, 'Shall we look at your bikes in December? Ada, Pannier & Post')
  await page.keyboard.press('Control+Enter')
  await page.getByRole('button', { name: 'Send 3 texts now' }).click()
  await expect(sent(page)).toContainText('3 of 3 sent, done', { timeout: 20_000 })
  const first = page.url()
  await writeFromHandset(page.request, numbers[1]!, 'Yes, all four')
  // it shows by itself who has answered
  await page.getByRole('button', { name: 'not answered 2' }).click()
  await expect(page.getByRole('heading', { name: 'Those who have not answered' })).toBeVisible()
  await expect(page.getByRole('main').getByRole('row')).toHaveCount(3)
  await page.getByRole('button', { name: 'Put these into a group' }).click()
  await page.getByRole('combobox', { name: 'The group to put them into' }).click()
  await page.getByRole('option', { name: 'To be called instead' }).click()
  await expect(page.getByText('They are put into To be called instead.')).toBeVisible()
  expect((await new AxeBuilder({ page }).analyze()).violations).toEqual([])
  await page.getByRole('button', { name: 'Another text to these' }).click()
  await expect(page.getByText('to 2 leads. Not sent yet.')).toBeVisible()
  await page.goto(`/groups/${group}`)
  await expect(page.getByText('2 people, by hand')).toBeVisible()

  // repeated, it goes to all who are meant today, and is written already
  await makeLead(page.request, 'Dorrit', freshNumber(), { lastName: 'Againaway' })
  await page.goto(first)
  await page.getByRole('button', { name: 'Repeat it' }).click()
  await expect(page.getByText('to 4 leads. Not sent yet.')).toBeVisible()
  await expect(page.getByText('with 1 person who came since, and without 0 who went')).toBeVisible()
  await expect(words(page)).toContainText('Shall we look at your bikes in December?')
})
