import { readHours, setPlaceHours } from '~~/server/hours/set-up'
import { route } from '~~/server/routing/route'
import { placeHoursForm, placeParams } from '~~/shared/schemas/hours'

export default route({ params: placeParams, body: placeHoursForm }, async ({ asker, params, body, now }) => {
  await setPlaceHours(asker, params.place, body, now)
  return readHours(asker, now)
})
