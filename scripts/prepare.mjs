// Installs from the lock file and builds, each only when something has changed.
import { execFileSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs'

const run = (command, args) => execFileSync(command, args, { stdio: ['ignore', 'inherit', 'inherit'] })
const stampOf = file => existsSync(file) ? readFileSync(file, 'utf8') : ''
const hashOf = parts => parts.reduce((hash, part) => hash.update(part), createHash('sha256')).digest('hex')

export function installIfNeeded() {
  const wanted = hashOf([readFileSync('package-lock.json')])
  if (stampOf('node_modules/.plauder-lock') === wanted) return
  console.log('Installing packages…')
  run('npm', ['ci', '--no-fund', '--no-audit', '--loglevel', 'error'])
  writeFileSync('node_modules/.plauder-lock', wanted)
}

const SOURCES = ['app', 'core', 'shared', 'server', 'practice', 'demo', 'scripts/build.mjs', 'scripts/bundle.mjs', 'nuxt.config.ts', 'package-lock.json']

export function buildIfNeeded() {
  const files = execFileSync('find', [...SOURCES, '-type', 'f'], { encoding: 'utf8' }).trim().split('\n').sort()
  const wanted = hashOf(files.flatMap(file => [file, readFileSync(file)]))
  if (stampOf('.output/.plauder-sources') === wanted) return
  console.log('Building (about a minute)…')
  run('node', ['scripts/build.mjs'])
  mkdirSync('.output', { recursive: true })
  writeFileSync('.output/.plauder-sources', wanted)
}
