import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect, test } from '@playwright/test'
import { expectAccessible } from './accessible'
import { slipWith, zoneWhereItIs } from './people'
import { PORT } from './world'
import { startApplication, startPractice, stop } from '../../scripts/world.mjs'

/** A Plauder of its own, without any data: what a new firm meets first. */
test('a new firm begins with the key that the start has printed, and sends its first text', async ({ page }) => {
  const port = PORT + 4
  const folder = mkdtempSync(join(tmpdir(), 'plauder-begin-'))
  const practice = startPractice({
    folder,
    port,
    practicePort: port + 1,
    env: { PRACTICE_PACE: JSON.stringify({ sent: 20, delivered: 50 }) },
  })
  await practice.open
  const application = startApplication({ folder, port, practicePort: port + 1 })
  await application.healthy
  try {
    const address = `http://127.0.0.1:${port}`
    await page.goto(address)
    await expect(page.getByRole('heading', { name: 'Nobody has begun here yet' })).toBeVisible()
    await page.goto(`${address}/begin`)
    await expect(page.getByText('The key is missing.')).toBeVisible()

    await page.goto('about:blank')
    await page.goto(`${address}${application.began.at}`)
    await expect(page.getByRole('heading', { name: 'Begin' })).toBeVisible()
    await expectAccessible(page)
    await page.getByLabel('What it is called').fill('Two Wheels & Daughter')
    await page.getByRole('button', { name: 'Begin' }).click()
    await expect(page.getByText('Choose a country.')).toBeVisible()
    await page.getByRole('combobox', { name: /Country/ }).click()
    await page.getByRole('searchbox').fill('United St')
    await page.getByRole('option', { name: 'United States' }).click()
    await page.getByLabel('Your name').fill('Ottilie Brandt')
    await page.getByLabel('Mail address, to sign in with').fill('ottilie@wheels.example')
    await page.getByLabel(/^Password/).fill('three loose racks')
    await page.getByRole('button', { name: 'Begin' }).click()
    await expect(page.getByText('What waits for you, Ottilie, the first thing first.')).toBeVisible()
    expect(page.url()).not.toContain('#')

    await page.goto(`${address}/records/leads`)
    await expect(page.getByText('0 leads')).toBeVisible()
    await page.keyboard.press('c')
    await expect(page.getByRole('heading', { name: 'New lead' })).toBeVisible()
    await page.getByLabel('First name').fill('Wren')
    await page.getByLabel('Last name').fill('Adeyemi')
    await page.getByLabel('Last name').press('Tab')
    await page.keyboard.press('Tab')
    await page.keyboard.type('503 555 0136')
    await page.getByLabel('Time zone').fill(zoneWhereItIs(12))
    await page.keyboard.press('Enter')
    await expect(page.getByRole('heading', { name: 'Wren Adeyemi' })).toBeVisible()
    await page.getByLabel('Text to Wren').fill('Hi Wren, Ottilie here.')
    await page.keyboard.press('Control+Enter')
    await expect(slipWith(page, 'Hi Wren, Ottilie here.').getByText(/^Delivered/)).toBeVisible()
    // an admin tries it; everybody else may once it is switched on, with terms that they have read
    await page.goto(`${address}/set-up`)
    await page.getByRole('listitem').filter({ hasText: 'Texting is switched off.' }).getByRole('link', { name: 'Put it right' }).click()
    await page.getByRole('button', { name: 'Switch it on for everybody' }).click()
    await expect(page.getByText('Save the terms of use first: whoever texts reads them before.')).toBeVisible()
    await page.getByRole('button', { name: 'Save the terms' }).click()
    await expect(page.getByText('Who has read version 1')).toBeVisible()
    await page.getByRole('button', { name: 'Switch it on for everybody' }).click()
    await expect(page.getByText('Texting is switched on.')).toBeVisible()
    await page.goto(`${address}/set-up`)
    await expect(page.getByText('$19.99 left')).toBeVisible()
    await expect(page.getByText('Texting is switched off.')).toBeHidden()
    await page.goto(`${address}/begin#any`)
    await expect(page).toHaveURL(`${address}/`)
  }
  finally {
    await Promise.all([application, practice].map(({ child }) => stop(child)))
    rmSync(folder, { recursive: true, force: true })
  }
})
