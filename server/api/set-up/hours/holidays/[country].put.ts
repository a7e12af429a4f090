import { keepHolidays, readHours } from '~~/server/hours/set-up'
import { route } from '~~/server/routing/route'
import { countryParams, holidaysForm } from '~~/shared/schemas/hours'

export default route({ params: countryParams, body: holidaysForm }, async ({ asker, params, body, now }) => {
  await keepHolidays(asker, params.country, body.kept, now)
  return readHours(asker, now)
})
