import { route } from '~~/server/routing/route'
import { openStream } from '~~/server/live/streams'

export default route({ uncounted: true }, async ({ event, asker }) => openStream(event, asker))
