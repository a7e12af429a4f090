import { addClosedDay, readHours } from '~~/server/hours/set-up'
import { route } from '~~/server/routing/route'
import { closedDayForm } from '~~/shared/schemas/hours'

export default route({ body: closedDayForm }, async ({ asker, body, now }) => {
  await addClosedDay(asker, body, now)
  return readHours(asker, now)
})
