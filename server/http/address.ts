import { BlockList, isIPv4, isIPv6 } from 'node:net'
import { PlainError } from '../log/failure'

interface Asked { socket: { remoteAddress?: string }, headers: Record<string, string | string[] | undefined> }

/**
 * Reads which proxies stand in front of us: addresses or ranges, `10.0.0.0/8, 127.0.0.1`. Without any, what a request says
 * about where it comes from counts for nothing.
 *
 * @throws PlainError for what is neither
 */
export function readProxies(setting: string): BlockList {
  const list = new BlockList()
  for (const entry of setting.split(/[\s,]+/).filter(Boolean)) {
    const [address = '', bits] = entry.split('/')
    const family = isIPv4(address) ? 'ipv4' : isIPv6(address) ? 'ipv6' : null
    const most = family === 'ipv4' ? 32 : 128
    if (!family || (bits !== undefined && !(/^\d+$/.test(bits) && Number(bits) <= most)))
      throw new PlainError(
        `PLAUDER_TRUSTED_PROXIES has “${entry}” in it, which is no address and no range. Write such as 10.0.0.0/8, 127.0.0.1.`,
      )
    list.addSubnet(address, bits === undefined ? most : Number(bits), family)
  }
  return list
}

const bare = (address: string) => address.trim().replace(/^::ffff:(?=\d+\.)/i, '').replace(/^\[(.*)\](:\d+)?$/, '$1')
const isIn = (list: BlockList, address: string) =>
  isIPv4(address) ? list.check(address, 'ipv4') : isIPv6(address) && list.check(address, 'ipv6')

/** Whether whoever speaks to us directly is a proxy of ours. */
export const comesThrough = (proxies: BlockList, { socket }: Asked): boolean => isIn(proxies, bare(socket.remoteAddress ?? ''))

/**
 * The address a request comes from: of those that X-Forwarded-For names, from the right, the first that is no proxy of
 * ours. Whatever stands further left anybody may have written.
 */
export function addressOf(proxies: BlockList, { socket, headers }: Asked): string {
  const hops = [
    String(headers['x-forwarded-for'] ?? '')
      .split(',')
      .map(bare)
      .filter(Boolean),
    bare(socket.remoteAddress ?? 'unknown'),
  ].flat()
  for (let i = hops.length - 1; i > 0; i--) if (!isIn(proxies, hops[i]!)) return hops[i]!
  return isIPv4(hops[0]!) || isIPv6(hops[0]!) ? hops[0]! : hops.at(-1)!
}
