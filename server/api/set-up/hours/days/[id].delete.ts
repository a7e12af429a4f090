import { readHours, removeClosedDay } from '~~/server/hours/set-up'
import { route } from '~~/server/routing/route'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('closed-day') }, async ({ asker, params, now }) => {
  await removeClosedDay(asker, params.id, now)
  return readHours(asker, now)
})
