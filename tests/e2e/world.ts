import { equal } from 'node:assert/strict'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { NATIONAL_LANGUAGES, NATIONAL_TABLES } from '../../core/text/national'
import { measureText } from '../../core/text/measure'
import type { SentText } from '../../practice/carrier/world'
import { copyDemo } from '../../scripts/laid-demo.mjs'
import { startApplication, startPractice, stop } from '../../scripts/world.mjs'

process.env.PLAUDER_BUILD = resolve('.output/parts')
process.env.PLAUDER_QUIET = '1'

/** Lays the demo data once, before the workers start; each one's world is a copy of it. */
export default async function layOnce(): Promise<void> {
  const folder = newFolder()
  await copyDemo(folder)
  rmSync(folder, { recursive: true, force: true })
}

const newFolder = () => mkdtempSync(join(tmpdir(), 'plauder-e2e-'))

/** Where the world of this worker is. Playwright numbers the workers that go beside each other. */
export const PORT = Number(process.env.E2E_PORT ?? 4610) + 10 * Number(process.env.TEST_PARALLEL_INDEX ?? 0)
export const PRACTICE_PORT = PORT + 1

export interface World { address: string, end(): Promise<void> }

/** Copies the demo data into a folder of its own, `E2E_FOLDER`, and starts everything. */
export async function startWorld(): Promise<World> {
  const folder = newFolder()
  process.env.E2E_FOLDER = folder
  await copyDemo(folder)
  const practice = startPractice({
    folder,
    port: PORT,
    practicePort: PRACTICE_PORT,
    env: {
      PRACTICE_PACE: JSON.stringify({ sent: 20, delivered: 50 }),
      PRACTICE_CALL_PACE: JSON.stringify({ ringing: 50, pickUp: 400, busy: 200, mailbox: 600, speaking: 0.1 }),
    },
  })
  const application = startApplication({ folder, port: PORT, practicePort: PRACTICE_PORT })
  await Promise.all([practice.open, application.healthy])
  return {
    address: `http://127.0.0.1:${PORT}`,
    async end() {
      await Promise.all([application, practice].map(({ child }) => stop(child)))
      compareParts(join(folder, 'practice'))
      rmSync(folder, { recursive: true, force: true })
    },
  }
}

/** Every text of a whole world: the parts that the ruler says are those that the carrier counted. */
function compareParts(folder: string): void {
  const entries = readFileSync(join(folder, 'carrier', 'journal.jsonl'), 'utf8')
    .split('\n')
    .filter(Boolean)
    .map(line => JSON.parse(line) as { do: string, text: SentText })
  for (const { text: { text, parts, tables, pictures } } of entries.filter(entry => entry.do === 'accept')) {
    if (pictures?.length) continue
    const languages = NATIONAL_LANGUAGES.filter(language => [tables?.single, tables?.locking].includes(NATIONAL_TABLES[language].id))
    equal(measureText(text, languages).parts, parts, `“${text}” has other parts than the carrier counted`)
  }
}
