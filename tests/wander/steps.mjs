// What somebody does who wanders: each step a name and a value, so that a walk can be printed and taken again.
import fc from 'fast-check'

export const PLACES = ['/', '/records/leads', '/records/candidates', '/records/deals', '/pipelines', '/calling', '/templates', '/drafts', '/records/leads/new', '/records/leads/import', '/calling/how', '/calling/spoken', '/sign-ins']
const KEYS = ['a', 'c', 'd', 'e', 'f', 'g', 'h', 'k', 'l', 'm', 'n', 'p', 'r', 's', 't', 'x', '/', '?', 'Escape', 'Enter', 'Tab', 'Shift+Tab', 'ArrowDown', 'ArrowUp', ' ', 'Control+k', 'Control+e', 'Control+.', 'Control+z', 'Control+Backspace', 'Control+Shift+Enter', 'Alt+a', 'Alt+h', 'Alt+d', 'Alt+e', 'Alt+c', 'Backspace']
const WORDS = ['Sure, Thursday', 'déjà vu ñ', 'שלום', '{{ person', '+1 808 555 0142', 'x'.repeat(300), '😀']
/** What they never click: it ends the walk, or another browser's. */
const NEVER = /sign out|leave it/i

export const STEP = fc.oneof(
  { weight: 6, arbitrary: fc.record({ act: fc.constant('press'), value: fc.constantFrom(...KEYS) }) },
  { weight: 5, arbitrary: fc.record({ act: fc.constant('click'), value: fc.nat(200) }) },
  { weight: 2, arbitrary: fc.record({ act: fc.constant('type'), value: fc.constantFrom(...WORDS) }) },
  { weight: 2, arbitrary: fc.record({ act: fc.constant('press'), value: fc.constant('Control+Enter') }) },
  { weight: 3, arbitrary: fc.record({ act: fc.constant('write'), value: fc.constantFrom(...WORDS) }) },
  { weight: 2, arbitrary: fc.record({ act: fc.constant('goTo'), value: fc.constantFrom(...PLACES) }) },
  { weight: 3, arbitrary: fc.record({ act: fc.constant('openRecord'), value: fc.nat(20) }) },
  { weight: 1, arbitrary: fc.record({ act: fc.constant('reload'), value: fc.constant('') }) },
  { weight: 1, arbitrary: fc.record({ act: fc.constant('back'), value: fc.constant('') }) },
  { weight: 1, arbitrary: fc.record({ act: fc.constant('theyWrite'), value: fc.constantFrom('Hello?', 'STOP', 'no thanks, stop texting me') }) },
  { weight: 1, arbitrary: fc.record({ act: fc.constant('theyCall'), value: fc.nat(3) }) },
)

/** Numbers of people of the demo, for fiction. */
const HANDSETS = ['+18085550142', '+15035550123', '+16125550110', '+19025550114']

const settled = page => page.waitForTimeout(120)
const ignored = () => undefined

export const ACTS = {
  async press({ page }, key) {
    await page.keyboard.press(key)
    await settled(page)
  },
  /** Something of what can be clicked and is on screen. */
  async click({ page }, nth) {
    const all = await page.locator('button:visible:not([disabled]), a:visible, [role="option"]:visible, input[type="checkbox"]:visible, [role="tab"]:visible').all()
    if (all.length === 0) return
    const one = all[nth % all.length]
    const name = await one.evaluate(node => node.getAttribute('aria-label') ?? node.textContent ?? '').catch(() => 'sign out')
    if (NEVER.test(name)) return
    await one.click({ timeout: 1_500, noWaitAfter: true }).catch(ignored)
    await settled(page)
  },
  async type({ page }, words) {
    await page.keyboard.insertText(words)
    await settled(page)
  },
  /** Into the composer of a record, where there is one. */
  async write({ page }, words) {
    const composer = page.locator('textarea#text')
    if (await composer.count() === 0) return
    await composer.fill(words, { timeout: 1_500 }).catch(ignored)
    await settled(page)
  },
  async goTo({ page }, place) {
    await page.goto(place).catch(ignored)
    await settled(page)
  },
  async openRecord({ page }, nth) {
    await page.goto('/records/leads').catch(ignored)
    const row = page.locator('tbody a.open').nth(nth)
    await row.click({ timeout: 5_000 }).catch(ignored)
    await page.locator('textarea#text').waitFor({ timeout: 5_000 }).catch(ignored)
  },
  async reload({ page }) {
    await page.reload().catch(ignored)
    await settled(page)
  },
  async back({ page }) {
    await page.goBack({ timeout: 3_000 }).catch(ignored)
    await settled(page)
  },
  async theyWrite({ context, practice, page }, text) {
    await context.request.post(`${practice}/handsets/api/texts`, { data: { phone: HANDSETS[0], to: '+15035550118', text } })
    await settled(page)
  },
  async theyCall({ context, practice, page }, nth) {
    await context.request.post(`${practice}/handsets/api/calls`, { data: { phone: HANDSETS[nth], act: 'call', to: '+15035550118' } })
    await settled(page)
  },
}
