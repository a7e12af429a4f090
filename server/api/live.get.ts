import { colleagueAtWork } from '~~/server/identity/sign-in'
import { openStream } from '~~/server/live/streams'
import { route } from '~~/server/routing/route'
import { readEntries } from '~~/server/timeline/read'

export default route({ uncounted: true }, async ({ event, asker }) =>
  openStream(event, asker, async (recordId, ids) => {
    // a stream stays open for days: what goes over it is what they may see now
    const now = await colleagueAtWork(asker.id)
    return now ? readEntries(now, recordId, ids) : []
  }))
