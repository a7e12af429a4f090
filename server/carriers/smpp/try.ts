import type { Bind } from '~~/shared/carriers'
import { NotLetIn, openLink, type Access } from './link'
import { WAYS } from './keep'

/** @returns null if it has let us in, or why not, in words */
export async function tryToBind(access: Access, bind: Bind): Promise<string | null> {
  for (const way of WAYS[bind]) {
    try {
      // whatever it delivers in this moment it keeps, and delivers again
      const link = await openLink(access, way, () => Promise.reject(new Error('It is only tried.')))
      await link.leave()
    }
    catch (error) {
      if (error instanceof NotLetIn) return error.message
      throw error
    }
  }
  return null
}
