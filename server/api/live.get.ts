import { route } from '~~/server/http/route'
import { openStream } from '~~/server/live/streams'

export default route({ uncounted: true }, async ({ event, asker }) => openStream(event, asker))
