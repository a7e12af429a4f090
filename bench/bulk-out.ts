import { v7 as uuid } from 'uuid'
import { checkBulks, startCheck } from '../server/bulk/check'
import { makeBulk, writeBulk } from '../server/bulk/make'
import { startBulk } from '../server/bulk/run'
import { sendBulks } from '../server/bulk/send'
import { noteAsked } from '../server/http/quiet'
import { CHECK_BULK, HAND_OVER, SEND_BULK } from '../server/jobs/kinds'
import { handOver } from '../server/texting/hand-over'
import { sendText } from '../server/texting/send'
import { makeBulkForm, startBulkForm, writeBulkForm, type MakeBulkForm } from '../shared/schemas/bulk-text'
import { TAKE_BACK_MS } from '../shared/texting'
import { fillPeople } from './people'
import { exitCode, figure, percentile, size } from './support'
import { startWholeWay, textOf } from './whole-way'

/**
 * A bulk text through the whole way out, against the same texts sent singly; and how late a text by hand leaves in the middle of it,
 * against how late it leaves with nothing else on the way.
 */
const PEOPLE = Number(process.env.BENCH_PEOPLE ?? size(2_000, 30))
const BY_HAND = size(40, 3)
/** So many that those by hand come into the middle of them. */
const AROUND = size(2_000, 30)
const PAUSE_MS = size(150, 20)

async function main(): Promise<void> {
  const way = await startWholeWay(4880)
  const { database, ada, lineId } = way
  try {
    await fillPeople(database, 2 * PEOPLE + AROUND + 2 * BY_HAND)
    // nobody is asleep, and no line is too slow
    await database.pool.query('update record set zone = $1 where mail like \'bench%@post.example\'', [zoneAtNoon()])
    await database.pool.query('update line set texts_a_minute = 60000')
    await database.pool.query('vacuum analyze')
    const { rows } = await database.pool.query<{ recordId: string, phoneId: string }>(
      'select r.id as "recordId", p.id as "phoneId" from record r join phone p on p.record_id = r.id where r.mail like \'bench%@post.example\' order by r.id')
    const [singly, atOnce, around] = [rows.splice(0, PEOPLE), rows.splice(0, PEOPLE), rows.splice(0, AROUND)]
    const [alone, amid] = [rows.splice(0, BY_HAND), rows.splice(0, BY_HAND)]
    const stop = way.work({ [HAND_OVER]: handOver, [CHECK_BULK]: checkBulks, [SEND_BULK]: sendBulks })

    const byHand = (phoneId: string, id = uuid()) => sendText(ada, textOf(id, lineId, phoneId, 'By hand. Ada'), new Date(Date.now() - TAKE_BACK_MS))
    /** How late each of some texts leaves, one after the other with a pause between them, milliseconds. */
    const lateness = async (people: { phoneId: string }[]) => {
      const late: number[] = []
      for (const { phoneId } of people) {
        const [id, begun] = [uuid(), performance.now()]
        // as a request does
        noteAsked()
        await byHand(phoneId, id)
        while (!await hasLeft(id)) await pause(5)
        late.push(performance.now() - begun)
        await pause(PAUSE_MS)
      }
      return percentile(late, 0.95)
    }
    const hasLeft = async (id: string) =>
      (await database.pool.query<{ left: boolean }>('select handed_at is not null as left from message where id = $1', [id])).rows[0]!.left

    const single = PEOPLE / await way.timeUntilDelivered(PEOPLE, async () => {
      const queue = [...singly]
      await Promise.all(Array.from({ length: 8 }, async () => {
        for (let one = queue.shift(); one; one = queue.shift()) await byHand(one.phoneId)
      }))
    }) * 1_000
    let quiet = 0
    await way.timeUntilDelivered(BY_HAND, async () => quiet = await lateness(alone))

    /** A bulk text to some people, checked. */
    const checkedFor = async (people: { recordId: string }[]) => {
      const [id, now] = [uuid(), new Date()]
      const selection = { list: { module: 'lead', sort: 'made', direction: 'up' as const, words: '', where: '' }, ids: null }
      await makeBulk(ada, makeBulkForm.cast({ id, name: 'Winter tyres', selection }) as MakeBulkForm, now)
      await database.pool.query('update bulk_text set record_ids = $2::uuid[] where id = $1', [id, people.map(({ recordId }) => recordId)])
      await writeBulk(ada, id, writeBulkForm.validateSync({ name: 'Winter tyres', body: 'Time for winter tyres. Ada', lineId }), now)
      await startCheck(ada, id, now)
      while (await stateOf(id) !== 'checked') await pause(20)
      return id
    }
    const stateOf = async (id: string) =>
      (await database.pool.query<{ state: string }>('select state from bulk_text where id = $1', [id])).rows[0]!.state
    const start = (id: string) => startBulk({ ...ada, role: 'lead' }, id, startBulkForm.cast({}), new Date())

    const first = await checkedFor(atOnce)
    const bulk = PEOPLE / await way.timeUntilDelivered(PEOPLE, () => start(first)) * 1_000
    const second = await checkedFor(around)
    let busy = 0
    await start(second)
    await way.timeUntilDelivered(AROUND + BY_HAND, async () => busy = await lateness(amid))
    if (await stateOf(second) === 'done' && size(1, 0)) console.log('# the second one was over before the last by hand: give it more people')
    await stop()
    console.log(`# ${PEOPLE} texts of a bulk text ${bulk.toFixed(0)} a second, sent singly ${single.toFixed(0)}; by hand amid them p95 ${busy.toFixed(0)} ms, alone ${quiet.toFixed(0)} ms`)
    figure('bulk-out/singly', bulk / single, '>=0.8', bulk >= 0.8 * single)
    figure('bulk-out/by-hand-amid', busy / quiet, '<=2', busy <= 2 * quiet)
    await way.close()
  }
  finally {
    way.remove()
  }
}

const pause = (milliseconds: number) => new Promise(resolve => setTimeout(resolve, milliseconds))

/** Where it is about noon now. */
function zoneAtNoon(): string {
  const ahead = 12 - new Date().getUTCHours()
  return ahead === 0 ? 'Etc/UTC' : `Etc/GMT${ahead > 0 ? '-' : '+'}${Math.abs(ahead)}`
}

await main()
process.exit(exitCode())
