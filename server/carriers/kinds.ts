import type { CarrierKind, CarrierSettings } from '~~/shared/carriers'
import type { Carrier } from './port'
import { smppCarrier } from './smpp/carrier'
import { tryToBind } from './smpp/try'

/** An account with what is needed to use it. */
export interface OpenAccount { name: string, title: string, settings: CarrierSettings, secret: string }

interface Kind {
  open: (account: OpenAccount) => Carrier
  /** Tries whether the carrier lets the account in; gives null, or why not, in words. */
  attempt: (account: OpenAccount) => Promise<string | null>
}

/** Every protocol by which a carrier can be connected in Set-up. A new one is a folder with its adapter, and a line here. */
export const CARRIER_ADAPTERS: Record<CarrierKind, Kind> = {
  smpp: {
    open: ({ secret, ...account }) => smppCarrier({ ...account, password: secret }),
    attempt: ({ settings, secret }) => tryToBind({ ...settings, password: secret }, settings.bind),
  },
}
