import { readHours, takeBackPlaceHours } from '~~/server/hours/set-up'
import { route } from '~~/server/routing/route'
import { placeParams } from '~~/shared/schemas/hours'

export default route({ params: placeParams }, async ({ asker, params, now }) => {
  await takeBackPlaceHours(asker, params.place, now)
  return readHours(asker, now)
})
