import { mkdtempSync, rmSync } from 'node:fs'
import { createServer } from 'node:http'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { createApp, createRouter, defineEventHandler, getHeaders, toNodeListener } from 'h3'
import { DEMO_PASSWORD } from '../demo/colleagues'
import { fillDemo } from '../demo/lay'
import { fetchPrices } from '../server/tellers/keep-up'
import { practiceCarrier } from '../server/carriers/practice'
import { registerCarrier } from '../server/carriers/registry'
import { openDoor } from '../server/db/door'
import { openEmbedded } from '../server/db/embedded/open'
import { readBytes } from '../server/http/body'
import { whoSignedIn, openSignIn } from '../server/identity/sign-in'
import { startOutbox } from '../server/jobs/outbox'
import { carrierTeller } from '../server/tellers/tellers'
import { secretsFor, startPractice } from '../scripts/world.mjs'
import { PARTS } from './support'

export const THREAD = join(PARTS, 'database-thread.mjs')

/**
 * A world with the demo's people and a practice carrier that has no pace of its own, for texts through the whole way out.
 *
 * @param reportPort where the carrier's reports come in; the practice world has those after it
 */
export async function startWholeWay(reportPort: number) {
  const practicePort = reportPort + 1
  const folder = mkdtempSync(join(tmpdir(), 'plauder-bench-'))
  const practice = startPractice({
    folder,
    port: reportPort,
    practicePort,
    env: { PRACTICE_PER_SECOND: '100000', PRACTICE_PACE: '{"sent":0,"delivered":0}' },
  })
  await practice.open
  const secrets = secretsFor(folder)
  const database = await openEmbedded(THREAD, { folder: join(folder, 'database'), startFrom: join(PARTS, 'empty-database.tar.gz') })
  openDoor(database.pool)
  await fillDemo(new Date())
  // however many texts there are to be: they are held and entered all the same
  await database.pool.query('update money_account set prepaid = false')
  const carrier = practiceCarrier({
    url: `http://127.0.0.1:${practicePort}`,
    key: secrets.PLAUDER_CARRIER_KEY,
    webhookSecret: secrets.PLAUDER_WEBHOOK_SECRET,
  })
  registerCarrier(carrier)
  await fetchPrices(carrier)
  const signedIn = await openSignIn({ mail: 'ada@pannier.example', password: DEMO_PASSWORD, code: '' }, { address: 'bench' }, new Date())
  const ada = (await whoSignedIn(signedIn.signIn, new Date()))!
  const { rows: [line] } = await database.pool.query<{ id: string }>('select id from line where e164 = \'+15035550118\'')

  let [delivered, wanted, done] = [0, 0, () => {}]
  const router = createRouter().post('/api/carriers/practice/events', defineEventHandler(async (event) => {
    const body = await readBytes(event, 65_536)
    if (!carrier.webhook!.isSigned(body, getHeaders(event))) throw new Error('A report was not signed.')
    const report = carrier.readEvent(JSON.parse(body.toString('utf8')))
    await carrierTeller(carrier).take(JSON.parse(body.toString('utf8')), new Date())
    if (report.kind === 'delivered' && ++delivered >= wanted) done()
    return { taken: true }
  }))
  const server = createServer(toNodeListener(createApp().use(router))).listen(reportPort, '127.0.0.1')
  return {
    folder,
    database,
    ada,
    lineId: line!.id,
    /** Does some work and waits until so many more texts than before are delivered; gives the milliseconds. */
    timeUntilDelivered: async (count: number, work: () => Promise<unknown>): Promise<number> => {
      const allDelivered = new Promise<void>(resolve => done = resolve)
      wanted += count
      const begun = performance.now()
      await work()
      await allDelivered
      return performance.now() - begun
    },
    work: (handlers: Parameters<typeof startOutbox>[0]['handlers']) => startOutbox({ handlers }),
    close: async () => {
      server.close()
      await database.close()
    },
    remove: () => {
      practice.child.kill('SIGKILL')
      rmSync(folder, { recursive: true, force: true })
    },
  }
}
export type WholeWay = Awaited<ReturnType<typeof startWholeWay>>

/** What is sent by hand to a number, as if written so long ago that the time to take it back is over. */
export const textOf = (id: string, lineId: string, phoneId: string, text: string) => ({
  id, lineId, phoneId, conversationId: null, recordId: null, text, templateId: null, templateVersion: null, nightAllowed: true,
  anyway: ['twice' as const], seenUntil: null, later: null, ref: null, pictureIds: [],
})
