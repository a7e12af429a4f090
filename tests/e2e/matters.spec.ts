import { expect, type APIRequestContext, type Page } from '@playwright/test'
import type { Pipeline } from '../../shared/pipelines'
import { expectAccessible } from './accessible'
import { freshNumber, makeLead, signIn, slipWith, test, textsOnHandset } from './people'

const stage = (page: Page, name: string) => page.getByRole('region', { name, exact: true })
const fleets = async (request: APIRequestContext) =>
  ((await (await request.get('/api/pipelines?holds=deal')).json()) as Pipeline[]).find(({ name }) => name === 'New fleets')!

async function makeDeal(request: APIRequestContext, name: string, personIds: string[] = []): Promise<{ id: string, pipeline: Pipeline }> {
  const [id, pipeline] = [crypto.randomUUID(), await fleets(request)]
  const answer = await request.post('/api/records', {
    data: { id, module: 'deal', name, pipelineId: pipeline.id, personIds, fields: { value: 4_800, currency: 'GBP' } },
  })
  expect(answer.ok()).toBe(true)
  return { id, pipeline }
}

test('a deal is made from a person, with the person on it, and texted from', async ({ browser }) => {
  const page = await signIn(browser, 'ada')
  const number = freshNumber()
  const person = await makeLead(page.request, 'Dealia', number)
  await page.goto(`/record/${person}`)
  await page.getByRole('button', { name: 'Make one' }).click()
  await page.getByRole('menuitem', { name: 'New deal' }).click()
  await expect(page.getByText('Dealia Testaway')).toBeVisible()
  await page.getByRole('button', { name: 'Make this deal' }).click()
  await expect(page.getByText('Give the deal a name.')).toBeVisible()
  await page.getByLabel('Name', { exact: true }).fill('Two trikes for Dealia')
  await page.getByLabel('Value').fill('5760')
  await page.getByRole('combobox', { name: 'Currency' }).click()
  await page.getByRole('option', { name: 'CAD' }).click()
  await page.getByRole('button', { name: 'Make this deal' }).click()
  await expect(page.getByRole('heading', { name: 'Two trikes for Dealia' })).toBeVisible()
  await expect(page.getByText('C$5,760')).toBeVisible()

  await page.getByLabel('Text to Dealia').fill('The trikes are ready for you.')
  await page.getByRole('button', { name: 'Send to Dealia now' }).click()
  await expect(slipWith(page, 'The trikes are ready for you.')).toContainText('Delivered')
  expect((await textsOnHandset(page.request, number)).map(({ text }) => text)).toEqual(['The trikes are ready for you.'])
  await page.getByRole('button', { name: 'Trial week' }).click()
  await expect(page.getByText('moved the stage from First word to Trial week')).toBeVisible()
  await page.getByRole('link', { name: 'Dealia Testaway' }).first().click()
  await expect(slipWith(page, 'The trikes are ready for you.')).toBeVisible()
  await expect(page.getByRole('link', { name: 'Two trikes for Dealia' })).toBeVisible()
})

test('a deal is dragged and carried by keys from stage to stage, colleagues see it, and it is taken back', async ({ browser }) => {
  const page = await signIn(browser, 'ada')
  const name = `Dragged ${Date.now() % 100_000}`
  const { pipeline } = await makeDeal(page.request, name)
  await page.goto(`/pipelines/${pipeline.id}`)
  const mika = await signIn(browser, 'mika')
  await mika.goto(`/pipelines/${pipeline.id}`)
  const more = stage(page, 'First word').getByRole('button', { name: /more$/ })
  if (await more.isVisible()) await more.click()
  await stage(page, 'First word').getByRole('listitem').filter({ hasText: name }).dragTo(stage(page, 'Offer'))
  await expect(stage(page, 'Offer').getByRole('link', { name })).toBeVisible()
  await expect(page.getByText(`${name} went from First word to Offer.`)).toBeVisible()
  const offered = stage(mika, 'Offer').getByRole('link', { name })
  await mika.reload()
  await expect(offered).toBeVisible()

  await stage(page, 'Offer').getByRole('link', { name }).focus()
  await page.keyboard.press('Shift+ArrowLeft')
  await expect(stage(page, 'Trial week').getByRole('link', { name })).toBeFocused()
  await expect(stage(mika, 'Trial week').getByRole('link', { name })).toBeVisible()
  await page.getByRole('button', { name: 'Take it back' }).click()
  await expect(stage(page, 'Offer').getByRole('link', { name })).toBeVisible()

  // by a menu, for who can neither drag nor press keys
  await stage(page, 'Offer').getByRole('listitem').filter({ hasText: name }).hover()
  await page.getByRole('button', { name: `Move ${name}` }).click()
  await page.getByRole('menuitem', { name: 'Signed' }).click()
  await expect(stage(page, 'Signed').getByRole('link', { name })).toBeVisible()
})

test('a move that comes too late is refused, and says who stands where', async ({ browser }) => {
  const page = await signIn(browser, 'ada')
  const name = `Late ${Date.now() % 100_000}`
  const { id, pipeline } = await makeDeal(page.request, name)
  // the page hears of nothing: its stream is cut
  await page.route('**/api/live', route => route.abort())
  await page.goto(`/pipelines/${pipeline.id}`)
  await expect(stage(page, 'First word').getByRole('link', { name })).toBeVisible()
  const elsewhere = await signIn(browser, 'odile')
  const [first, lost] = ['First word', 'Lost'].map(name => pipeline.stages.find(one => one.name === name)!.id)
  const moved = await elsewhere.request.put(`/api/records/${id}/stage`, { data: { stageId: lost, from: first } })
  expect(moved.ok()).toBe(true)
  await stage(page, 'First word').getByRole('link', { name }).focus()
  await page.keyboard.press('Shift+ArrowRight')
  await expect(page.getByText(`Somebody else has moved ${name} to Lost`)).toBeVisible()
})

test('a job shows its candidates in their stages; people are put on it and taken off', async ({ browser }) => {
  const page = await signIn(browser, 'noor')
  const person = crypto.randomUUID()
  await page.request.post('/api/records', { data: { id: person, module: 'candidate', firstName: 'Jobina', lastName: 'Testaway' } })
  const job = crypto.randomUUID()
  await page.request.post('/api/records', { data: { id: job, module: 'job', name: 'Rider, evenings' } })
  await page.goto(`/record/${job}`)
  await page.getByRole('button', { name: 'Put somebody on it' }).click()
  await page.getByRole('combobox', { name: 'Whom to put on it' }).pressSequentially('Jobina')
  await page.getByRole('option', { name: /Jobina Testaway/ }).click()
  await expect(stage(page, 'Applied').getByRole('link', { name: 'Jobina Testaway' })).toBeVisible()
  await expect(page.getByText('put Jobina Testaway on Rider, evenings')).toBeVisible()
  await stage(page, 'Applied').getByRole('link', { name: 'Jobina Testaway' }).focus()
  await page.keyboard.press('Shift+ArrowRight')
  await expect(stage(page, 'Called').getByRole('link', { name: 'Jobina Testaway' })).toBeVisible()
  await page.getByRole('button', { name: 'Show all 1' }).click()
  await page.getByRole('button', { name: 'Remove Jobina Testaway' }).click()
  await expect(page.getByText('took Jobina Testaway off Rider, evenings')).toBeVisible()
})

test('from a pipeline one peeks and texts by keyboard', async ({ browser }) => {
  const page = await signIn(browser, 'ada')
  const number = freshNumber()
  const person = await makeLead(page.request, 'Peeka', number)
  const name = `Peeked ${Date.now() % 100_000}`
  const { pipeline } = await makeDeal(page.request, name, [person])
  await page.goto(`/pipelines/${pipeline.id}`)
  await stage(page, 'First word').getByRole('link', { name }).focus()
  await page.keyboard.press('t')
  await expect(page.getByLabel('Text to Peeka')).toBeFocused()
  await page.keyboard.type('From the pipeline.')
  await page.keyboard.press('Control+Enter')
  await expect.poll(async () => (await textsOnHandset(page.request, number)).length).toBe(1)
  await page.keyboard.press('Escape')
})

test('every list of records and the pipelines are accessible', async ({ browser }) => {
  const page = await signIn(browser, 'odile')
  for (const address of ['/pipelines', '/records/appointments', '/records/jobs', '/records/agreements/new', '/records/deals/new']) {
    await page.goto(address)
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
    await page.waitForLoadState('networkidle')
    await expectAccessible(page)
  }
})
