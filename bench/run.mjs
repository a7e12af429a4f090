// npm run bench: ratios within one run, one a line as `name ratio limit`. `npm run bench -- timeline` runs one of them.
import { spawnSync } from 'node:child_process'
import { resolve } from 'node:path'
import { build } from 'esbuild'
import { buildIfNeeded } from '../scripts/prepare.mjs'

const ALL = ['measure', 'templates', 'way-out', 'interface', 'keys', 'lists', 'found', 'rounds', 'timeline', 'imports']
const wanted = process.argv.slice(2)
buildIfNeeded()
await build({ entryPoints: ALL.map(name => `bench/${name}.ts`), bundle: true, platform: 'node', format: 'esm', packages: 'external', outdir: '.cache/bench', outExtension: { '.js': '.mjs' }, alias: { '~~': resolve('.') }, logLevel: 'warning' })
process.env.PLAUDER_BUILD = resolve('.output/parts')
process.env.PLAUDER_LOG = 'silent'
const codes = ALL.filter(name => wanted.length === 0 || wanted.includes(name))
  .map(name => spawnSync(process.execPath, [`.cache/bench/${name}.mjs`], { stdio: 'inherit' }).status)
process.exit(codes.every(code => code === 0) ? 0 : 1)
