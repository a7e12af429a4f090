import type { Carrier } from '../carriers/port'
import { takeOrSetAside } from './set-aside'
import { carrierTeller } from './tellers'

/** Connects to the carriers that keep a connection open; gives how to disconnect from all. */
export function openSessions(carriers: Carrier[], now: () => Date = () => new Date()): () => Promise<void> {
  const stops = carriers.flatMap((carrier) => {
    const teller = carrierTeller(carrier)
    return carrier.session
      ? [carrier.session.start(async (told) => {
          if (await takeOrSetAside(teller, told, now()) === 'again') throw new Error('It is to be told again later.')
        })]
      : []
  })
  return async () => void await Promise.all(stops.map(stop => stop()))
}
