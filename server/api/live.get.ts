import { route } from '~~/server/http/route'
import { openStream } from '~~/server/live/streams'

export default route({}, async ({ event, asker }) => openStream(event, asker))
