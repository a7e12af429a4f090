import { seeKnocks } from '~~/server/knocks/take'
import { route } from '~~/server/routing/route'

export default route({}, ({ asker, now }) => seeKnocks(asker, now))
