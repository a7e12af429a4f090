import { v7 as uuid } from 'uuid'
import type { CarrierTried } from '~~/shared/carriers'
import { neverConnected } from '../signature'
import { askGateway, type Access } from './ask'

/** Where it is to say hello to, and whether it has: null where that cannot be tried yet. */
export interface WayIn { reportTo: string, heard: (nonce: string) => Promise<boolean> }

const [LOOKS, LOOK_EVERY_MS] = [12, 500]

/** Says hello to a gateway, and waits for it to say hello to us. */
export async function tryGateway(access: Access, wayIn: WayIn | null): Promise<CarrierTried> {
  const nonce = uuid()
  const there = new URL(access.url).host
  const why = await hello(access, nonce, wayIn?.reportTo ?? null)
  if (why) return { ok: false, said: why }
  if (!wayIn) return { ok: true, said: `${there} has taken our signature. Whether it reaches us can be tried once it is connected.` }
  for (let look = 0; look < LOOKS; look++) {
    if (await wayIn.heard(nonce)) return { ok: true, said: `${there} has taken our signature, and reaches us.` }
    await new Promise(resolve => setTimeout(resolve, LOOK_EVERY_MS))
  }
  return { ok: false, said: `${there} has taken our signature, and has not said hello to ${wayIn.reportTo}. Is that address set there, with this secret, and can it be reached from there?` }
}

/** @returns null, or why not, in words */
async function hello(access: Access, nonce: string, reportTo: string | null): Promise<string | null> {
  try {
    const { status } = await askGateway(access, { id: nonce, type: 'hello', data: { nonce, reportTo } })
    if (status >= 200 && status < 300) return null
    if (status === 401 || status === 403) return 'It does not know our signature: the secret is another one there.'
    if (status === 404 || status === 405) return `Nobody takes texts at this address: it answered ${status}. Is the path right?`
    return `It answered ${status} when we said hello.`
  }
  catch (error) {
    if (neverConnected(error)) return 'Nobody answers there. Is the address right, and is it open to this machine?'
    return (error as Error).name === 'TimeoutError' ? 'It has not answered within ten seconds.' : 'The connection broke off before it had answered. Is it the right address, and does its certificate hold?'
  }
}
