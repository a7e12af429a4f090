import { openStream } from '~~/server/live/streams'
import { route } from '~~/server/routing/route'
import { readEntries } from '~~/server/timeline/read'

export default route({ uncounted: true }, async ({ event, asker }) =>
  openStream(event, asker, (recordId, ids) => readEntries(asker, recordId, ids)))
