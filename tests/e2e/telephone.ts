import { expect, type Page } from '@playwright/test'
import { PRACTICE } from './people'

/** What a telephone does when it is called, and what its owner does with it. */
export async function phone(
  page: Page,
  number: string,
  act: 'manner' | 'pick-up' | 'decline' | 'hang-up' | 'call',
  more: object = {},
): Promise<void> {
  const answer = await page.request.post(`${PRACTICE}/handsets/api/calls`, { data: { phone: number, act, ...more } })
  expect(await answer.json()).toEqual({ done: true })
}
export const shelf = (page: Page) => page.getByRole('region', { name: 'Shelf' })
export const panel = (page: Page, name: string) => page.getByRole('dialog', { name: `Call with ${name}` })
