// Once for all Jest workers: the database's thread, and a migrated, empty database that each test file starts from.
import { resolve } from 'node:path'
import { build } from 'esbuild'
import { bundleParts, makeEmptyDatabase } from '../../scripts/bundle.mjs'

export default async function prepare() {
  process.env.PLAUDER_BUILD = resolve('.cache/parts')
  process.env.PLAUDER_LOG ??= 'silent'
  // with which the tests' own secrets are sealed
  process.env.PLAUDER_SEAL_KEY ??= Buffer.alloc(32, 7).toString('base64')
  process.env.PLAUDER_METRICS_TOKEN ??= 'a token of the tests, long enough'
  await bundleParts('.cache/parts')
  await makeEmptyDatabase('.cache/parts')
  await build({ entryPoints: ['tests/support/hold-lock.ts'], bundle: true, platform: 'node', format: 'esm', packages: 'external', outfile: '.cache/parts/hold-lock.mjs', logLevel: 'warning' })
}
