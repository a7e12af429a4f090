// npm run mutants: changes one rule at a time in a copy, and names the changes that no test noticed. Not part of bin/test.
import { spawnSync } from 'node:child_process'
import { cpSync, mkdtempSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { MUTANTS } from './list.mjs'

const [wanted] = process.argv.slice(2)
const mutants = MUTANTS.filter(({ file, what }) => !wanted || `${file} ${what}`.includes(wanted))
const copy = mkdtempSync(join(tmpdir(), 'plauder-mutants-'))
const parts = ['app', 'core', 'demo', 'practice', 'scripts', 'server', 'shared', 'tests', 'jest.config.mjs', 'package.json', 'tsconfig.json']
for (const part of parts) cpSync(part, join(copy, part), { recursive: true })
symlinkSync(join(process.cwd(), 'node_modules'), join(copy, 'node_modules'))

const passes = tests => spawnSync(process.execPath, ['node_modules/jest/bin/jest.js', '--bail', ...tests], { cwd: copy, stdio: 'ignore' }).status === 0

const survivors = []
try {
  for (const [place, { file, what, from, to, tests }] of mutants.entries()) {
    const source = readFileSync(file, 'utf8')
    const found = source.split(from).length - 1
    if (found !== 1) throw new Error(`${file} has “${from}” ${found} times; a mutant needs it once.`)
    writeFileSync(join(copy, file), source.replace(from, () => to))
    const survived = passes(tests)
    if (survived) survivors.push(`${file}: ${what}`)
    writeFileSync(join(copy, file), source)
    console.log(`${String(place + 1).padStart(3)} of ${mutants.length}  ${survived ? 'SURVIVED' : 'killed  '}  ${file}: ${what}`)
  }
}
finally {
  rmSync(copy, { recursive: true, force: true })
}
console.log(survivors.length === 0 ? '\nNo mutant survived.' : `\n${survivors.length} survived:\n${survivors.map(one => `  ${one}`).join('\n')}`)
process.exit(survivors.length === 0 ? 0 : 1)
