import type { CarrierTried, CarrierWay } from '~~/shared/carriers'
import { httpCarrier } from './http/carrier'
import { tryGateway, type WayIn } from './http/try'
import type { Carrier } from './port'
import { smppCarrier } from './smpp/carrier'
import { tryToBind } from './smpp/try'

/** An account with what is needed to use it. */
export type OpenAccount = { name: string, title: string, secret: string } & CarrierWay

/** Every protocol by which a carrier can be connected in Set-up. A new one is a folder with its adapter, and a line in each of these. */
export function openCarrier(account: OpenAccount): Carrier {
  const { name, title, secret } = account
  switch (account.kind) {
    case 'smpp': return smppCarrier({ name, title, settings: account.settings, password: secret })
    case 'http': return httpCarrier({ name, title, settings: account.settings, secret })
  }
}

/** Tries whether the carrier lets the account in and, where that can be tried, whether it reaches us. */
export async function tryCarrier(account: OpenAccount, wayIn: WayIn | null): Promise<CarrierTried> {
  switch (account.kind) {
    case 'smpp': {
      const { host, systemId, bind } = account.settings
      const why = await tryToBind({ ...account.settings, password: account.secret }, bind)
      return { ok: why === null, said: why ?? `${host} has let ${systemId} in.` }
    }
    case 'http': return tryGateway({ ...account.settings, secret: account.secret }, wayIn)
  }
}
