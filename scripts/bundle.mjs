// Bundles what runs beside the built application: the database's thread, the practice world, the demo data.
import { cp, mkdir, writeFile } from 'node:fs/promises'
import { pathToFileURL } from 'node:url'
import { resolve } from 'node:path'
import { build } from 'esbuild'

const common = { bundle: true, platform: 'node', format: 'esm', target: 'node20', logLevel: 'warning', packages: 'external', outExtension: { '.js': '.mjs' }, alias: { '~~': resolve('.') } }

/** @param {string} folder where the parts go */
export async function bundleParts(folder) {
  await mkdir(folder, { recursive: true })
  await build({
    ...common,
    entryPoints: {
      'database-thread': 'server/db/embedded/worker.ts',
      'make-empty': 'server/db/make-empty.ts',
      'practice': 'practice/main.ts',
      'demo': 'demo/lay.ts',
      'backup': 'server/backup/main.ts',
    },
    outdir: folder,
  })
  await build({ bundle: true, format: 'esm', target: 'es2022', minify: true, logLevel: 'warning', entryPoints: { page: 'practice/handsets/page.ts' }, outdir: `${folder}/handsets` })
  for (const file of ['page.html', 'page.css']) await cp(`practice/handsets/${file}`, `${folder}/handsets/${file}`)
  await cp('server/db/migrations', `${folder}/migrations`, { recursive: true })
}

/** A database with all migrations and no rows: first starts, and tests, begin from a copy of it. */
export async function makeEmptyDatabase(folder) {
  const { makeEmpty } = await import(pathToFileURL(resolve(folder, 'make-empty.mjs')).href)
  await writeFile(`${folder}/empty-database.tar.gz`, await makeEmpty(folder))
}
