import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { pathToFileURL } from 'node:url'
import { startApplication, startPractice, stop } from '../../scripts/world.mjs'

/** Lays the demo data into a folder of its own and starts everything; ends it all afterwards. */
export default async function world() {
  const port = Number(process.env.E2E_PORT ?? 4610)
  const folder = mkdtempSync(join(tmpdir(), 'plauder-e2e-'))
  process.env.PLAUDER_BUILD = resolve('.output/parts')
  process.env.PLAUDER_QUIET = '1'
  process.env.E2E_FOLDER = folder
  const { layDemo } = await import(pathToFileURL(resolve('.output/parts/demo.mjs')).href) as { layDemo: (folder: string, fresh: boolean) => Promise<boolean> }
  await layDemo(folder, false)
  const practice = startPractice({ folder, port, practicePort: port + 1, env: { PRACTICE_PACE: JSON.stringify({ sent: 20, delivered: 50 }) } })
  const application = startApplication({ folder, port, practicePort: port + 1 })
  await Promise.all([practice.open, application.healthy])
  return async () => {
    await Promise.all([application, practice].map(({ child }) => stop(child)))
    rmSync(folder, { recursive: true, force: true })
  }
}
