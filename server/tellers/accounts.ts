import { openAccounts } from '../carriers/accounts'
import { openCarrier } from '../carriers/kinds'
import type { Carrier } from '../carriers/port'
import { registerCarrier, unregisterCarrier } from '../carriers/registry'
import { hear } from '../live/between'
import { log } from '../log/log'
import { openSessions } from './sessions'
import { carrierTeller, registerTeller, unregisterTeller } from './tellers'

type Account = Awaited<ReturnType<typeof openAccounts>>[number]

/** Whoever misses that something has changed, such as while the way to other processes is broken, sees it then. */
const LOOK_EVERY_MS = 60_000

/** Uses every carrier that is set up, and keeps to what is set up from then on; gives how to leave them all. */
export async function useAccounts(): Promise<() => Promise<void>> {
  const used = new Map<string, { account: Account, leave: () => Promise<void> }>()
  let left = false
  let looking = Promise.resolve()

  async function keepTo(accounts: Account[]): Promise<void> {
    for (const [name, { account, leave }] of used) {
      const still = accounts.find(one => one.name === name)
      if (still?.version === account.version) continue
      // those who let one in once do not let one in again before that
      await leave()
      used.delete(name)
      if (!still) {
        unregisterCarrier(name)
        unregisterTeller(name)
      }
    }
    for (const account of accounts) if (!used.has(account.name)) used.set(account.name, { account, leave: use(account) })
  }

  /** One look after the other: an account is not connected twice. */
  const look = (): Promise<void> => looking = looking.then(async () => {
    if (!left) await keepTo(await openAccounts())
  }).catch(error => log.error({ err: error }, 'it could not be seen which carriers are set up; it is looked again'))

  await look()
  const stopHearing = hear('carriers', () => void look())
  const timer = setInterval(() => void look(), LOOK_EVERY_MS).unref()
  return async () => {
    left = true
    clearInterval(timer)
    stopHearing()
    await looking
    await Promise.all([...used.values()].map(({ leave }) => leave()))
  }
}

function use(account: Account): () => Promise<void> {
  const carrier = account.locked ? locked(account) : openCarrier(account)
  registerCarrier(carrier)
  registerTeller(carrierTeller(carrier))
  return openSessions([carrier])
}

/** One whose secret this machine cannot read: its texts wait for an admin. */
function locked({ name, title }: Account): Carrier {
  log.error({ carrier: name }, 'the secret of a carrier cannot be read with PLAUDER_SEAL_KEY')
  const since = Date.now()
  return {
    name,
    title,
    hand: () => Promise.resolve({ kind: 'try-later', afterMs: null, certain: true, code: 'carrier-unreachable' }),
    readEvent: () => {
      throw new TypeError('Nothing is heard of a carrier whose secret cannot be read.')
    },
    state: () => ({ is: 'away', since, why: 'Its password was sealed with another key than this machine has. Write it again.' }),
  }
}
