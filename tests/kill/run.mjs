// The kill tests: what is under way while processes are killed, frozen and their clocks moved is neither lost nor done twice.
// `--long` kills a hundred times, `texts`, `rest` or `bulk` is that part alone. A seed is printed and can be given again.
import { mkdirSync, writeFileSync } from 'node:fs'
import { bulkIsKilled } from './bulk.mjs'
import { everythingElseIsKilled } from './rest.mjs'
import { textsAreKilled } from './texts.mjs'
import { counts } from './world.mjs'

const port = Number(process.env.KILL_PORT ?? 4710)
const seed = Number(process.env.SEED ?? Date.now() % 1_000_000)
const long = process.argv.includes('--long')
const only = process.argv.slice(2).find(argument => !argument.startsWith('--'))
console.log(`seed ${seed}`)

const SCENARIOS = {
  texts: [textsAreKilled, long ? 60 : 12],
  rest: [everythingElseIsKilled, long ? 40 : 10],
  bulk: [bulkIsKilled, long ? 20 : 6, long ? 1_000 : 150],
}
for (const [name, [scenario, kills, people]] of Object.entries(SCENARIOS).filter(([name]) => !only || name === only)) {
  console.log(`\n  ${name}`)
  await scenario({ port, seed, kills, people }).catch((error) => {
    counts.failed++
    console.log(`  ✘ ${error.stack}`)
  })
}
mkdirSync('.cache', { recursive: true })
writeFileSync(process.env.COUNTS ?? '.cache/count-kills.json', JSON.stringify(counts))
console.log(`${counts.deaths} deaths; ${counts.passed} passed, ${counts.failed} failed`)
process.exit(counts.failed === 0 ? 0 : 1)
