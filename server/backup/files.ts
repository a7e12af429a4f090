import { createHash } from 'node:crypto'
import { createReadStream, readdirSync, readFileSync } from 'node:fs'
import { join, relative } from 'node:path'
import { pipeline } from 'node:stream/promises'
import { PlainError } from '../log/failure'

/** What a backup says of itself, in `manifest.json` beside its `database/`. */
export interface Manifest {
  /** Of how a backup is laid out. */
  format: 1
  madeAt: string
  /** How many changes of the tables it has seen. */
  migrations: number
  /** How many rows each table had. */
  rows: Record<string, number>
  /** SHA-256 of every file of the database, by its path in `database/`. */
  files: Record<string, string>
}

/** Every file below a folder, by its path from there. */
export const filesIn = (folder: string): string[] =>
  readdirSync(folder, { recursive: true, withFileTypes: true })
    .filter(entry => entry.isFile())
    .map(entry => relative(folder, join(entry.parentPath, entry.name)))
    .sort()

export async function hashFile(file: string): Promise<string> {
  const hash = createHash('sha256')
  await pipeline(createReadStream(file), hash)
  return hash.digest('hex')
}

export async function hashAll(folder: string): Promise<Record<string, string>> {
  const hashes: Record<string, string> = {}
  for (const file of filesIn(folder)) hashes[file] = await hashFile(join(folder, file))
  return hashes
}

/**
 * Reads what a backup says of itself and holds every file of it against that. Nothing is changed.
 *
 * @throws PlainError for what is no backup, is damaged, or has a file too few or too many
 */
export async function readBackup(folder: string): Promise<Manifest> {
  const manifest = readManifest(folder)
  const there = filesIn(join(folder, 'database'))
  const wanted = Object.keys(manifest.files)
  const missing = wanted.find(file => !there.includes(file))
  if (missing) throw damaged(folder, `database/${missing} is missing`)
  const strange = there.find(file => !(file in manifest.files))
  if (strange) throw damaged(folder, `database/${strange} does not belong to it`)
  for (const file of wanted) {
    if (await hashFile(join(folder, 'database', file)) !== manifest.files[file]) throw damaged(folder, `database/${file} is not what it was`)
  }
  return manifest
}

function readManifest(folder: string): Manifest {
  try {
    const manifest = JSON.parse(readFileSync(join(folder, 'manifest.json'), 'utf8')) as Manifest
    if (manifest.format === 1 && typeof manifest.files === 'object' && typeof manifest.rows === 'object') return manifest
  }
  catch {
    // said below, in words
  }
  throw new PlainError(`${folder} is no backup: it has no manifest.json that can be read. Name the folder that bin/backup has made.`)
}

const damaged = (folder: string, what: string) =>
  new PlainError(`The backup in ${folder} is damaged: ${what}. Nothing was touched. Take another backup.`)
