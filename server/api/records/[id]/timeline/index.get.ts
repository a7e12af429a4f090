import { addDays, dayStart } from '~~/core/hours/days'
import { zoneRules } from '~~/core/hours/zones'
import { route } from '~~/server/routing/route'
import { readAround, readAt, readEntries, readNewer, readTimeline } from '~~/server/timeline/read'
import { isSifted, sifted } from '~~/server/timeline/sieve'
import { byId } from '~~/shared/schemas/common'
import { timelineQuery } from '~~/shared/schemas/timeline'

export default route({ params: byId('record'), query: timelineQuery }, async ({ asker, params: { id }, query }) => {
  const which = isSifted(query) ? sifted(query, asker.zone) : undefined
  if (query.only) return { entries: await readEntries(asker, id, query.only, which), more: false, newer: false }
  if (query.around) return readAround(asker, id, query.around)
  if (query.on) return readAt(asker, id, dayStart(zoneRules(asker.zone)!, addDays(query.on, 1)) - 1, which)
  const after = cursor(query.afterAt, query.afterId)
  return after ? readNewer(asker, id, after, which) : readTimeline(asker, id, cursor(query.beforeAt, query.beforeId), which)
})

const cursor = (at: number | undefined, id: string | undefined) => at !== undefined && id ? { at, id } : undefined
