import { AsyncLocalStorage } from 'node:async_hooks'
import { v7 as uuid } from 'uuid'

const current = new AsyncLocalStorage<string>()

/** The request in whose work this is; undefined for what happens by itself. */
export const requestId = (): string | undefined => current.getStore()

/** Does work in the name of a request: what is logged meanwhile, and what is answered, carries its id. */
export const asRequest = <T>(work: (id: string) => T): T => {
  const id = uuid()
  return current.run(id, () => work(id))
}
