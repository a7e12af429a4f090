import { mkdirSync } from 'node:fs'
import { resolve } from 'node:path'
import type pg from 'pg'
import { endForgotten } from './calling/forgotten'
import { registerExchange } from './calling/port'
import { keepUpWith } from './tellers/keep-up'
import { carriersFor, exchangeFor } from './tellers/all'
import { tellOfAway } from './carriers/away'
import { registerCarrier } from './carriers/registry'
import { useAccounts } from './tellers/accounts'
import { openSessions } from './tellers/sessions'
import { sayWhatIsMissing } from './tellers/set-aside'
import { carrierTeller, exchangeTeller, registerTeller } from './tellers/tellers'
import { offerBackups } from './backup/offer'
import { diskIsFull, watchDisk } from './db/disk'
import { regularly } from './db/regularly'
import { databaseUrl, startDatabase } from './db/start'
import { PlainError } from './log/failure'
import { log } from './log/log'
import { countAttemptsIn } from './identity/attempts'
import { offerBeginning } from './beginning/begin'
import { stillSignedIn } from './identity/sign-in'
import { WORKSHOP } from './workshop'
import { startOutbox, takeLeasesBack } from './jobs/outbox'
import { sweep } from './sweep'
import { knockByTheClock } from './knocks/by-the-clock'
import { openChannel } from './live/channel'
import { settleForgotten } from './money/forgotten'
import { registerPost } from './mail/post'
import { smtpPost } from './mail/smtp'
import { mailByTheClock } from './mail/waiting'
// hears from the first moment who looks at what elsewhere
import './live/presence'
import { closeAllBut, closeStreams, listening } from './live/streams'
import { indexSortedFields } from './records/sorted-fields'
import { settings } from './settings'
import { callSilence } from './texting/events'
import { workOutSchedule } from './texting/schedule'

const HOUR = 3_600_000
const MINUTE = 60_000
/** What the clock brings up is late by no more than this. */
const KNOCKS_EVERY_MS = 5_000
const MAILS_EVERY_MS = 30_000
const AWAY_EVERY_MS = 5_000

/** Opens everything in order; gives how to close it. */
async function start(): Promise<() => Promise<void>> {
  // before anything is opened: without them whoever likes could tell us what they like
  const set = settings()
  const carriers = carriersFor(set)
  const exchange = exchangeFor(set)
  const folder = resolve(set.PLAUDER_DATA)
  mkdirSync(folder, { recursive: true, mode: 0o700 })
  const stopWatching = await watchDisk(folder, set.PLAUDER_KEEP_FREE_MB)
  const database = await startDatabase(folder)
  if (database.copyTo) offerBackups(folder, database.copyTo)
  const url = databaseUrl()
  const leaveOthers = url ? await beBeside(url, database.pool) : await beAlone()
  carriers.forEach(registerCarrier)
  if (exchange) registerExchange(exchange)
  const tellers = [...carriers.map(carrierTeller), ...exchange ? [exchangeTeller(exchange)] : []]
  tellers.forEach(registerTeller)
  if (database.missingBytes > 0) await sayWhatIsMissing(database.missingBytes, new Date())
  await workOutSchedule()
  await indexSortedFields()
  await printBeginning()
  // before anything is handed over: what is for a carrier that is not there yet would break
  const leaveAccounts = await useAccounts()
  const stopOutbox = startOutbox(WORKSHOP, () => new Date(), () => !diskIsFull())
  const stopSessions = openSessions(carriers)
  if (set.PLAUDER_SMTP_URL) registerPost(smtpPost(set.PLAUDER_SMTP_URL, set.PLAUDER_MAIL_FROM, set.PLAUDER_HOME.replace(/\/$/, '')))
  const stopKnocking = regularly([
    { every: KNOCKS_EVERY_MS, work: () => knockByTheClock(new Date()) },
    { every: MAILS_EVERY_MS, work: () => mailByTheClock(new Date()) },
    { every: AWAY_EVERY_MS, work: tellOfAway },
  ])
  const stopKeepingUp = keepUpWith(carriers, tellers, set.PLAUDER_CATCH_UP_MS)
  const tidy = async () => {
    await callSilence(new Date())
    await settleForgotten(new Date())
    await endForgotten(new Date())
    await sweep(new Date())
    await indexSortedFields()
  }
  const streamsEnd = setInterval(
    () => void endStreams().catch(error => log.error({ err: error }, 'streams of ended sign-ins could not be closed')),
    MINUTE,
  ).unref()
  const tidying = setInterval(
    () => void tidy().catch(error => log.error({ err: error }, 'the hourly tidying failed; it is tried again in an hour')),
    HOUR,
  ).unref()
  return async () => {
    clearInterval(tidying)
    clearInterval(streamsEnd)
    stopKeepingUp()
    await stopSessions()
    await leaveAccounts()
    stopWatching()
    await stopKnocking()
    await stopOutbox()
    await leaveOthers()
    await database.close()
  }
}

/** Whoever reads what the start prints may make the firm, while there is none. Behind the # it gets into no log of a proxy. */
async function printBeginning(): Promise<void> {
  const key = await offerBeginning(new Date())
  if (key) log.warn({ begin: `/begin#${key}` }, 'nobody has begun here yet: open this path to make the firm and its first admin')
}

/** A sign-in that has run out ends what it has open. */
async function endStreams(): Promise<void> {
  const ids = listening()
  if (ids.length > 0) closeAllBut(await stillSignedIn(ids, new Date()))
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
    // what is ours to say has words of its own, and needs no trace
    if (error instanceof PlainError) log.fatal(error.message)
    else log.fatal({ err: error }, 'Plauder could not start')
    process.exit(1)
  })
  return started.then(() => undefined)
}

export async function shutDown(): Promise<void> {
  await (await started)?.()
}
