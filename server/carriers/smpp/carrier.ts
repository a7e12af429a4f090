import type { SmppSettings } from '~~/shared/carriers'
import { log } from '../../log/log'
import type { Carrier } from '../port'
import { readDelivered, toldOfText, toldText, type Heard } from './hear'
import { fateOfText, forget, joinSent, keepPart, overdue, type Assembled } from './joined'
import { keepConnected, type Kept } from './keep'
import type { Pdu } from './protocol'
import { submitText } from './submit'
import { readTold } from './told'

/** How often it is looked for texts whose missing parts will not come any more. */
const OVERDUE_EVERY_MS = 60_000
/** For so long a text that comes again over another connection is the one whose acknowledgement was lost. */
const SAME_WITHIN_MS = 120_000

export interface SmppAccount { name: string, title: string, settings: SmppSettings, password: string }

type Tell = (told: unknown) => Promise<void>
type HeardText = Extract<Heard, { is: 'text' }>

/**
 * A carrier that speaks SMPP 3.4. It has no key against doubles: a text whose answer is lost is not sent again by itself.
 *
 * @param now for tests
 */
export function smppCarrier({ name, title, settings, password }: SmppAccount, now: () => Date = () => new Date()): Carrier {
  let kept: Kept | null = null
  let reference = Math.floor(Math.random() * 256)
  const lately = new Map<string, { connection: number, at: number }>()
  /** Texts of several parts whose answers are not all there: what is told of them meanwhile waits until they are written down. */
  const underWay = new Set<Promise<unknown>>()

  async function hear(pdu: Pdu, connection: number, tell: Tell): Promise<void> {
    let heard: Heard
    try {
      heard = readDelivered(pdu)
    }
    catch (error) {
      // kept for an admin as whatever nobody can read: telling it again would not help
      log.warn({ err: error, carrier: name }, 'an SMS centre has delivered what nobody can read')
      return tell({ kind: 'unreadable', octets: pdu.toBuffer().toString('base64') })
    }
    if (heard.is === 'text') return hearText(heard, connection, tell)
    await Promise.allSettled(underWay)
    const { ref, fate } = await fateOfText(name, heard.receipt.ref, heard.receipt.fate)
    await tell(toldOfText(ref, fate, fate === 'not-delivered' ? heard.receipt.code : null, now()))
  }

  async function hearText({ from, to, text, joined, hash }: HeardText, connection: number, tell: Tell): Promise<void> {
    if (joined) {
      const whole = await keepPart(name, { remote: from, own: to, text, joined }, now())
      return whole ? tellWhole(whole, tell) : undefined
    }
    if (isAgain(hash, connection)) return
    await tell(toldText(null, from, to, text, now()))
    lately.set(hash, { connection, at: now().getTime() })
  }

  /** It has come over an earlier connection a moment ago: its acknowledgement was lost. */
  function isAgain(hash: string, connection: number): boolean {
    for (const [one, { at }] of lately) if (now().getTime() - at > SAME_WITHIN_MS) lately.delete(one)
    const before = lately.get(hash)
    return before !== undefined && before.connection !== connection
  }

  async function tellWhole(whole: Assembled, tell: Tell): Promise<void> {
    await tell(toldText(whole.id, whole.remote, whole.own, whole.text, now()))
    await forget(name, whole)
  }

  return {
    name,
    title,
    keyless: true,
    hand(text) {
      if (!kept) return Promise.resolve({ kind: 'try-later', afterMs: null, certain: true, code: 'carrier-unreachable' })
      reference = (reference + 1) % 256
      const handed = submitText(kept, text, settings.longTexts, reference).then(async ({ refs, ...answer }) => {
        if (refs && refs.length > 1) await joinSent(name, refs, now())
        return answer
      })
      underWay.add(handed)
      return handed.finally(() => underWay.delete(handed))
    },
    readEvent: readTold,
    state: () => kept?.state() ?? { is: 'away', since: 0, why: 'Nobody has connected to it.' },
    session: {
      start(tell) {
        kept = keepConnected({ ...settings, password }, { ...settings, name }, (pdu, connection) => hear(pdu, connection, tell))
        const looking = setInterval(
          () => void tellOverdue(tell).catch(error => log.warn({ err: error, carrier: name }, 'what lacks a part could not be told')),
          OVERDUE_EVERY_MS,
        ).unref()
        return async () => {
          clearInterval(looking)
          await kept?.stop()
          kept = null
        }
      },
    },
  }

  async function tellOverdue(tell: Tell): Promise<void> {
    for (const whole of await overdue(name, now())) await tellWhole(whole, tell)
  }
}
