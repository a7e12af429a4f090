import { mkdirSync } from 'node:fs'
import { resolve } from 'node:path'
import type pg from 'pg'
import { endForgotten } from './calling/forgotten'
import { registerExchange } from './calling/port'
import { practiceExchange } from './calling/practice-exchange'
import { keepUpWith } from './carriers/keep-up'
import { practiceCarrier } from './carriers/practice'
import { registerCarrier } from './carriers/registry'
import { databaseUrl, startDatabase } from './db/start'
import { FolderInUse } from './db/folder-lock'
import { log } from './http/log'
import { countAttemptsIn } from './identity/attempts'
import { HANDLERS } from './jobs/handlers'
import { startOutbox, takeLeasesBack } from './jobs/outbox'
import { openChannel } from './live/channel'
// hears from the first moment who looks at what elsewhere
import './live/presence'
import { closeStreams } from './live/streams'
import { callSilence } from './texting/events'
import { workOutSchedule } from './texting/schedule'

const HOUR = 3_600_000

/** Opens everything in order; gives how to close it. */
async function start(): Promise<() => Promise<void>> {
  const folder = resolve(process.env.PLAUDER_DATA ?? '.data')
  mkdirSync(folder, { recursive: true, mode: 0o700 })
  const database = await startDatabase(folder)
  const url = databaseUrl()
  const leaveOthers = url ? await beBeside(url, database.pool) : await beAlone()
  const access = {
    url: process.env.PLAUDER_CARRIER_URL ?? 'http://127.0.0.1:4401',
    key: process.env.PLAUDER_CARRIER_KEY ?? '',
    webhookSecret: process.env.PLAUDER_WEBHOOK_SECRET ?? 'bm8tc2VjcmV0LXNldC1ub3RoaW5nLWlzLXRha2Vu',
  }
  const carrier = practiceCarrier(access)
  registerCarrier(carrier)
  const exchange = practiceExchange(access)
  registerExchange(exchange)
  await workOutSchedule()
  const stopOutbox = startOutbox(HANDLERS)
  const stopKeepingUp = keepUpWith(carrier, exchange, Number(process.env.PLAUDER_CATCH_UP_MS ?? 30_000))
  const tidy = async () => {
    await callSilence(new Date())
    await endForgotten(new Date())
  }
  const tidying = setInterval(() => void tidy().catch(error => log.error({ err: error }, 'what is silent could not be called so')), HOUR).unref()
  return async () => {
    clearInterval(tidying)
    stopKeepingUp()
    await stopOutbox()
    await leaveOthers()
    await database.close()
  }
}

/** On a server there may be other processes: they hear of what happens here, and count attempts to sign in with us. */
async function beBeside(url: string, pool: pg.Pool): Promise<() => Promise<void>> {
  countAttemptsIn(pool)
  // browsers whose streams end come back, and fetch what was missed
  return openChannel(url, closeStreams)
}

/** Whoever held the jobs of this data folder before is gone. */
async function beAlone(): Promise<() => Promise<void>> {
  await takeLeasesBack()
  return async () => {}
}

let started: ReturnType<typeof start> | null = null

/** Resolves once Plauder can serve. A folder in use ends the process: two would lose each other's writes. */
export function ready(): Promise<void> {
  started ??= start().catch((error: unknown) => {
    log.fatal({ err: error instanceof FolderInUse ? undefined : error }, error instanceof Error ? error.message : 'Plauder could not start')
    process.exit(1)
  })
  return started.then(() => undefined)
}

export async function shutDown(): Promise<void> {
  await (await started)?.()
}
