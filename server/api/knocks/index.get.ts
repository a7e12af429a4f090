import { readKnocks } from '~~/server/pages/knocks'
import { route } from '~~/server/routing/route'

export default route({}, ({ asker, now }) => readKnocks(asker, now))
