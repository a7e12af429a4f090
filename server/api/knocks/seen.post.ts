import { seeKnocks } from '~~/server/knocks/take'
import { readKnocks } from '~~/server/pages/knocks'
import { route } from '~~/server/routing/route'

export default route({}, async ({ asker, now }) => {
  await seeKnocks(asker, now)
  return readKnocks(asker, now)
})
