import type { Carrier } from './port'

const carriers = new Map<string, Carrier>()

export function registerCarrier(carrier: Carrier): void {
  carriers.set(carrier.name, carrier)
}

export function unregisterCarrier(name: string): void {
  carriers.delete(name)
}

export const carrierRegistered = (name: string): Carrier | undefined => carriers.get(name)

/** @throws Error for a line whose carrier this process does not know */
export function carrierNamed(name: string): Carrier {
  const carrier = carriers.get(name)
  if (!carrier) throw new Error(`No carrier is registered as “${name}”.`)
  return carrier
}

export const allCarriers = () => [...carriers.values()]
