// bin/restore <backup> [--replace]: puts a backup into the data folder.
import { readFileSync } from 'node:fs'
import { join, resolve } from 'node:path'
import { pathToFileURL } from 'node:url'
import { buildIfNeeded, installIfNeeded } from './prepare.mjs'

const given = process.argv.slice(2)
const replace = given.includes('--replace')
const [from, ...more] = given.filter(one => one !== '--replace')
if (!from || more.length > 0 || from.startsWith('-')) {
  console.error('bin/restore takes the folder of a backup, and --replace where a database is to make room (it is kept). PLAUDER_DATA names the data folder.')
  process.exit(2)
}
installIfNeeded()
buildIfNeeded()
const parts = resolve('.output/parts')
const { restore } = await import(pathToFileURL(join(parts, 'backup.mjs')).href)
try {
  const { before, rows } = await restore({
    from: resolve(from),
    dataFolder: resolve(process.env.PLAUDER_DATA ?? '.data'),
    threadFile: join(parts, 'database-thread.mjs'),
    migrations: JSON.parse(readFileSync(join(parts, 'migrations/meta/_journal.json'), 'utf8')).entries.length,
    replace,
    now: new Date(),
  })
  console.log(`Restored, with ${rows.toLocaleString('en-US')} rows.${before ? ` What was there before is in ${before}.` : ''}`)
}
catch (error) {
  console.error(error.message)
  process.exit(1)
}
