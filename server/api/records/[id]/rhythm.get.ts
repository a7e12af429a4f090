import { route } from '~~/server/routing/route'
import { offsetAt } from '~~/core/hours/wall'
import { zoneRules } from '~~/core/hours/zones'
import { readRhythm } from '~~/server/timeline/read'
import { byId } from '~~/shared/schemas/common'

const YEAR = 365 * 86_400_000

export default route({ params: byId('record') }, async ({ asker, params, now }) => {
  const offset = offsetAt(zoneRules(asker.zone)!, now.getTime())
  const last = Math.floor((now.getTime() / 60_000 + offset) / 1440)
  return { first: last - 364, last, days: await readRhythm(asker, params.id, new Date(now.getTime() - YEAR), offset) }
})
