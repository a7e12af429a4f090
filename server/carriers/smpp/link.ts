import { isIP } from 'node:net'
import { whyNotBound } from '~~/core/smpp/status'
import { connect, errors, PDU, type Pdu, type PduFields } from './protocol'

/** Where an SMS centre is, and as whom we come. */
export interface Access { host: string, port: number, tls: boolean, systemId: string, password: string, systemType: string }

export type Way = 'bind_transceiver' | 'bind_transmitter' | 'bind_receiver'

/** One connection on which the SMS centre has let us in. */
export interface Link {
  /**
   * Asks something.
   *
   * @throws Unanswered
   */
  ask: (command: string, fields?: PduFields) => Promise<Pdu>
  /** Resolves with why it ended, once it has. */
  ended: Promise<string>
  /** Takes leave, and ends it. */
  leave: () => Promise<void>
}

/** What was asked has no answer. `asked`: it may have got there all the same. */
export class Unanswered extends Error {
  constructor(readonly asked: boolean) {
    super(asked ? 'It was asked and has not answered.' : 'It was not asked.')
  }
}

/** Nobody let us in; the words say why, and what to do. */
export class NotLetIn extends Error {}

/** So long a PDU may remain without an answer; longer, and the connection is given up. */
const PATIENCE_MS = 10_000
/** How often it is asked whether the other side is still there. */
const ENQUIRE_EVERY_MS = 30_000

interface Timing { patienceMs: number, enquireEveryMs: number }

/** Version 3.4, as bind says it. */
const VERSION = 0x34

/**
 * Connects to an SMS centre and is let in (SMPP 3.4, bind).
 *
 * @param hears takes what it delivers; resolves once that is committed, and only then it is acknowledged
 * @throws NotLetIn
 */
export async function openLink(
  { host, port, tls, systemId, password, systemType }: Access,
  way: Way,
  hears: (pdu: Pdu) => Promise<void>,
  { patienceMs, enquireEveryMs }: Timing = { patienceMs: PATIENCE_MS, enquireEveryMs: ENQUIRE_EVERY_MS },
): Promise<Link> {
  const session = connect({ host, port, tls, ...(tls && !isIP(host) && { servername: host }) })
  const waiting = new Set<() => void>()
  let over: string | null = null
  let told: (why: string) => void = () => {}
  const ended = new Promise<string>(resolve => told = resolve)

  function end(why: string): void {
    if (over !== null) return
    over = why
    clearInterval(enquiring)
    session.destroy()
    for (const fail of waiting) fail()
    told(why)
  }
  session.on('error', (error: Error) => end(inWords(error)))
  session.on('close', () => end('It has closed the connection.'))
  session.on('pdu', (pdu: Pdu) => void hear(pdu))

  async function hear(pdu: Pdu): Promise<void> {
    if (pdu.isResponse()) return
    const answer = (status = 0) => void session.send(pdu.response({ command_status: status }))
    switch (pdu.command) {
      case 'enquire_link': return answer()
      case 'deliver_sm': return hears(pdu).then(() => answer(), () => answer(errors.ESME_RX_T_APPN))
      case 'unbind':
        answer()
        return end('It has taken leave.')
      case 'unknown': return answer(errors.ESME_RINVCMDID)
      // it tells that somebody can be reached again, or that it knows nothing of what we sent: nobody waits for an answer
      case 'alert_notification':
      case 'outbind': return
      default: return answer(errors.ESME_RINVCMDID)
    }
  }

  const ask = (command: string, fields: PduFields = {}) => new Promise<Pdu>((resolve, reject) => {
    if (over !== null) return reject(new Unanswered(false))
    const settle = () => {
      clearTimeout(timer)
      waiting.delete(fail)
    }
    const fail = () => {
      settle()
      reject(new Unanswered(true))
    }
    const timer = setTimeout(() => {
      fail()
      end('It has not answered for too long.')
    }, patienceMs).unref()
    waiting.add(fail)
    const written = session.send(new PDU(command, fields), (answer) => {
      settle()
      resolve(answer)
    })
    if (!written) {
      settle()
      reject(new Unanswered(false))
    }
  })
  const enquiring = setInterval(() => void ask('enquire_link').catch(() => {}), enquireEveryMs).unref()

  await connected(session, tls, patienceMs, ended, end)
  const answer = await ask(way, { system_id: systemId, password, system_type: systemType, interface_version: VERSION })
    .catch(() => {
      throw new NotLetIn(`${over ?? ''} It may be no SMS centre, or one that speaks another protocol.`.trim())
    })
  if (answer.command_status !== 0) {
    end('It has not let us in.')
    throw new NotLetIn(whyNotBound(answer.command_status))
  }
  return {
    ask,
    ended,
    leave: async () => {
      if (over === null) await ask('unbind').catch(() => {})
      end('We have taken leave.')
    },
  }
}

/** @throws NotLetIn where nobody answers there */
async function connected(
  session: ReturnType<typeof connect>,
  tls: boolean,
  patienceMs: number,
  ended: Promise<string>,
  end: (why: string) => void,
): Promise<void> {
  const timer = setTimeout(() => end('Nobody answers there.'), patienceMs).unref()
  const open = new Promise<null>(resolve => session.once(tls ? 'secureConnect' : 'connect', () => resolve(null)))
  const why = await Promise.race([open, ended])
  clearTimeout(timer)
  if (why !== null) throw new NotLetIn(why)
}

const WORDS: Record<string, string> = {
  ECONNREFUSED: 'Nobody answers at this address and port.',
  ENOTFOUND: 'There is no such host. Look at how its name is written.',
  EAI_AGAIN: 'Its name cannot be looked up at the moment.',
  ETIMEDOUT: 'Nobody answers at this address.',
  EHOSTUNREACH: 'There is no way to this address from here.',
  ENETUNREACH: 'There is no way to this address from here.',
  ECONNRESET: 'It has broken off the connection.',
  EPIPE: 'It has broken off the connection.',
  EPROTO: 'It does not speak TLS there. Try it without.',
  ERR_SSL_WRONG_VERSION_NUMBER: 'It does not speak TLS there. Try it without.',
  DEPTH_ZERO_SELF_SIGNED_CERT: 'Its certificate is signed by nobody whom this machine trusts.',
  ERR_TLS_CERT_ALTNAME_INVALID: 'Its certificate is for another name.',
}

const inWords = (error: Error & { code?: string }): string => WORDS[error.code ?? ''] ?? `The connection broke: ${error.message}`
