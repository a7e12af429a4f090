// The demo data for tests and measurements, which need it again and again: laid once (ten seconds), then copied.
import { cpSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, renameSync, rmSync, statSync } from 'node:fs'
import { join, resolve } from 'node:path'
import { pathToFileURL } from 'node:url'

const KEPT = resolve('.cache/laid-demo')

/** What is laid is relative to now; nobody who tests minds it being older by so much. */
const FRESH_MS = 15 * 60_000
const FORGOTTEN_MS = 2 * 3_600_000

const partsOf = name => import(pathToFileURL(resolve(`.output/parts/${name}.mjs`)).href)

/** Lays the demo data into a data folder, or into the server's database where there is one. */
export async function copyDemo(folder) {
  const { layDemo } = await partsOf('demo')
  if (process.env.DATABASE_URL) return void await layDemo(folder)
  const build = readFileSync('.output/.plauder-sources', 'utf8').slice(0, 12)
  const laid = join(KEPT, `${build}-${Math.floor(Date.now() / FRESH_MS)}`)
  if (!statSync(laid, { throwIfNoEntry: false })) await layInto(laid, layDemo)
  cpSync(laid, folder, { recursive: true })
}

async function layInto(laid, layDemo) {
  mkdirSync(KEPT, { recursive: true })
  for (const name of readdirSync(KEPT)) {
    const old = statSync(join(KEPT, name), { throwIfNoEntry: false })
    if (old && Date.now() - old.mtimeMs > FORGOTTEN_MS) rmSync(join(KEPT, name), { recursive: true, force: true })
  }
  const laying = mkdtempSync(join(KEPT, 'laying-'))
  await layDemo(laying)
  try {
    renameSync(laying, laid)
  }
  catch (error) {
    // somebody beside us was first; theirs is as good
    if (error.code !== 'ENOTEMPTY' && error.code !== 'EEXIST') throw error
    rmSync(laying, { recursive: true, force: true })
  }
}
