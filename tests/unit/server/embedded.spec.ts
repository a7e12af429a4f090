import { spawn } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { sql } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { tx } from '~~/server/db/door'
import { audit } from '~~/server/db/schema'
import { builtFolder } from '~~/server/db/start'
import { useEmbeddedDatabase } from '../../support/database'

const database = useEmbeddedDatabase()
const insert = (action: string) => tx(db => db.insert(audit).values({ id: uuid(), at: new Date(), action }))
const count = async (action: string) => (await tx(db => db.execute<{ n: number }>(sql`select count(*)::int as n from audit where action = ${action}`))).rows[0]!.n

describe('the embedded database', () => {
  it('loads by COPY between the others\' transactions', async () => {
    const rows = Array.from({ length: 500 }, () => `${uuid()},2026-11-25T00:00:00Z,copied`).join('\n')
    await Promise.all([
      database().copyFrom('copy audit (id, at, action) from \'/dev/blob\' csv', rows),
      insert('beside a copy'),
      insert('beside a copy'),
    ])
    expect([await count('copied'), await count('beside a copy')]).toEqual([500, 2])
  })
})

describe('the lock of the data folder', () => {
  const start = (folder: string) => {
    const child = spawn(process.execPath, [join(builtFolder(), 'hold-lock.mjs'), folder], { stdio: ['ignore', 'pipe', 'inherit'] })
    return { child, said: new Promise<string>(resolve => child.stdout.once('data', chunk => resolve(String(chunk).trim()))) }
  }

  it('goes to exactly one of two that start at once after a SIGKILL, every time', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'plauder-lock-'))
    try {
      let holder = start(folder)
      expect(await holder.said).toBe('holds')
      for (let round = 0; round < 10; round++) {
        holder.child.kill('SIGKILL')
        await new Promise(resolve => holder.child.once('exit', resolve))
        const both = [start(folder), start(folder)]
        const said = await Promise.all(both.map(one => one.said))
        expect([...said].sort()).toEqual(['holds', 'refused'])
        holder = both[said.indexOf('holds')]!
        both[said.indexOf('refused')]!.child.kill()
      }
      holder.child.kill('SIGKILL')
    }
    finally {
      rmSync(folder, { recursive: true })
    }
  })
})
