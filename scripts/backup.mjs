// bin/backup [folder]: a backup of the data folder's database goes into the folder, `backups` if none is named.
import { join, resolve } from 'node:path'
import { pathToFileURL } from 'node:url'
import { buildIfNeeded, installIfNeeded } from './prepare.mjs'

const [into = 'backups', ...more] = process.argv.slice(2)
if (more.length > 0 || into.startsWith('-')) {
  console.error('bin/backup takes one thing: the folder into which the backup goes. PLAUDER_DATA names the data folder, PORT where Plauder answers.')
  process.exit(2)
}
installIfNeeded()
buildIfNeeded()
const parts = resolve('.output/parts')
const { backUp } = await import(pathToFileURL(join(parts, 'backup.mjs')).href)
try {
  const { folder, rows } = await backUp({
    dataFolder: resolve(process.env.PLAUDER_DATA ?? '.data'),
    into,
    address: `http://127.0.0.1:${process.env.PORT ?? 4400}`,
    threadFile: join(parts, 'database-thread.mjs'),
    now: new Date(),
  })
  console.log(`Backed up: ${folder}, with ${rows.toLocaleString('en-US')} rows. The key of sealed passwords (seal-key) is not in it: keep that elsewhere.`)
}
catch (error) {
  console.error(error.message)
  process.exit(1)
}
