import { randomUUID } from 'node:crypto'
import { expect, type Page } from '@playwright/test'
import { Webhook } from 'standardwebhooks'
import { DEMO_PASSWORD } from '../../demo/colleagues'
import { credentials, freshNumber, makeLead, signIn, test } from './people'

/** The carrier tells something, signed, as it would by itself. */
async function tell(page: Page, event: object): Promise<{ taken: boolean }> {
  const body = JSON.stringify(event)
  const [id, now] = [randomUUID(), new Date()]
  const answer = await page.request.post('/api/carriers/practice/events', {
    data: body,
    headers: {
      'content-type': 'application/json',
      'webhook-id': id,
      'webhook-timestamp': String(Math.floor(now.getTime() / 1000)),
      'webhook-signature': new Webhook(credentials().webhookSecret).sign(id, now, body),
    },
  })
  expect(answer.ok()).toBe(true)
  return await answer.json() as { taken: boolean }
}

test('a second tab in which somebody else has signed in writes nothing under another name, and nothing is lost', async ({ browser }) => {
  const ada = await signIn(browser, 'ada')
  const id = await makeLead(ada.request, 'Shared', freshNumber())
  await ada.goto(`/record/${id}`)
  const composer = ada.getByLabel('Text to Shared')
  await composer.fill('Half a sentence, and')
  const other = await ada.context().newPage()
  await other.request.post('/api/sign-in', { data: { mail: 'noor@pannier.example', password: DEMO_PASSWORD } })
  await other.goto('/')
  await expect(other.getByRole('button', { name: /Noor/ })).toBeVisible()

  await ada.bringToFront()
  // keeping the draft is the first that is done in her name
  await composer.fill('Half a sentence, and the other half.')
  const dialog = ada.getByRole('dialog', { name: 'Somebody else is signed in' })
  await expect(dialog).toContainText('Noor Farouk has signed in in another tab')
  await dialog.getByLabel('Mail address').fill('ada@pannier.example')
  await dialog.getByLabel('Password').fill(DEMO_PASSWORD)
  await dialog.getByRole('button', { name: 'Sign in' }).click()
  await expect(dialog).toBeHidden()
  await expect(composer).toHaveValue('Half a sentence, and the other half.')
  const { entries } = await (await ada.request.get(`/api/records/${id}/timeline`)).json() as { entries: { kind: string }[] }
  expect(entries.filter(({ kind }) => kind === 'text-out')).toEqual([])
  await ada.getByRole('button', { name: 'Send to Shared now' }).click()
  await expect(ada.getByText(/^Delivered/)).toBeVisible()
})

test('somebody signs out elsewhere: what was open there ends at once, and asks who is there', async ({ browser }) => {
  const [here, elsewhere] = [await signIn(browser, 'mika'), await signIn(browser, 'mika')]
  await elsewhere.goto('/records/leads')
  await expect(elsewhere.locator('tbody a.open').first()).toBeVisible()
  await here.goto('/')
  await here.getByRole('button', { name: /Mika/ }).click()
  await here.getByRole('menuitem', { name: 'Signing in' }).click()
  await expect(here.getByText('this browser')).toBeVisible()
  await here.getByRole('button', { name: 'Sign out everywhere else' }).click()
  await expect(here.getByText('You are signed in nowhere else.')).toBeVisible()
  await expect(here.locator('.sign-ins li')).toHaveCount(1)
  // its stream was closed, so it asks anew and hears that nobody is signed in
  await expect(elsewhere.getByRole('dialog', { name: 'Your sign-in has ended' })).toBeVisible()
})

test('what nobody can read of a carrier is shown to an admin, and everything after it is taken', async ({ browser }) => {
  const rafe = await signIn(browser, 'rafe')
  const id = `odd-${randomUUID()}`
  expect(await tell(rafe, { id, type: 'text.priced', at: new Date().toISOString(), data: { id } })).toEqual({ taken: false })
  expect(await tell(rafe, { id, type: 'text.priced', at: new Date().toISOString(), data: { id } })).toEqual({ taken: false })
  await rafe.goto('/')
  await rafe.getByRole('link', { name: /Set-up \d+ stuck/ }).click()
  await rafe.getByRole('listitem').filter({ hasText: /things? got stuck/ }).getByRole('link', { name: 'Put it right' }).click()
  await expect(rafe.getByRole('heading', { name: 'What got stuck' })).toBeVisible()
  const odd = rafe.getByRole('listitem').filter({ hasText: 'text.priced' }).filter({ hasText: id })
  await expect(odd.first()).toContainText('It is not what we expect: type must be one of')
  await odd.first().getByRole('button', { name: 'Try again' }).click()
  await expect(rafe.getByRole('alert')).toContainText('It still cannot be taken')
  for (let left = await odd.count(); left > 0; left--) {
    await odd.first().getByRole('button', { name: 'Ignore it' }).click()
    await expect(odd).toHaveCount(left - 1)
  }
})

test('a text from a sender that is no number waits on the shelf, and can be answered by nobody', async ({ browser }) => {
  const ada = await signIn(browser, 'ada')
  const from = `Post,${Date.now() % 10_000}`
  expect(
    await tell(ada, {
      id: randomUUID(),
      type: 'text.received',
      at: new Date().toISOString(),
      data: { id: randomUUID(), from, to: '+15035550118', text: 'HELP' },
    }),
  ).toEqual({ taken: true })
  await ada.goto('/')
  await ada.getByRole('button', { name: new RegExp(from) }).first().click()
  await expect(ada.getByText(`${from} is no telephone number: whoever sends under it takes no answers.`)).toBeVisible()
  await expect(ada.getByLabel('Answer', { exact: true })).toHaveCount(0)
  await ada.getByRole('button', { name: 'Needs no answer' }).click()
  await expect(ada.getByRole('button', { name: new RegExp(from) })).toHaveCount(0)
})

test('a connection is kept for longer than whoever is in front of it keeps it', async ({ request }) => {
  expect((await request.get('/api/ready')).headers()['keep-alive']).toBe('timeout=75')
})

test('headers that are too long are a problem document', async ({ request }) => {
  const answer = await request.get('/api/me', { headers: { cookie: `x=${'a'.repeat(20_000)}` } })
  expect([answer.status(), answer.headers()['content-type']]).toEqual([431, 'application/problem+json'])
  expect(await answer.json()).toMatchObject({ type: 'headers-too-large', status: 431 })
})
