import { statfs } from 'node:fs/promises'
import { log } from '../log/log'

const EVERY_MS = 2_000
const MEGABYTE = 1_048_576

let full = false

/** Whether the disk of the data folder is too full to write anything. */
export const diskIsFull = (): boolean => full

/**
 * Looks every two seconds how much room the disk of a folder has.
 *
 * @param keepFreeMb below this nothing more is taken in: a database that runs out of disk in the middle of writing has to
 *   be mended by hand
 * @returns how to stop
 */
export async function watchDisk(folder: string, keepFreeMb: number): Promise<() => void> {
  const look = async () => {
    const { bavail, bsize } = await statfs(folder)
    const now = bavail * bsize < keepFreeMb * MEGABYTE
    if (now !== full)
      log[now ? 'error' : 'info'](
        { freeMb: Math.floor((bavail * bsize) / MEGABYTE) },
        now ? 'the disk is full: nothing more is taken in' : 'the disk has room again',
      )
    full = now
  }
  await look()
  const timer = setInterval(
    () => void look().catch(error => log.error({ err: error }, 'nobody can say how full the disk is')),
    EVERY_MS,
  ).unref()
  return () => clearInterval(timer)
}
