import { readFile } from '~~/server/http/body'
import { readFront } from '~~/server/papers/front'
import { addFile } from '~~/server/papers/written'
import { route } from '~~/server/routing/route'
import { MOST_PAPER_BYTES } from '~~/shared/papers'
import { paperFileParams, paperFileQuery } from '~~/shared/schemas/papers'

export default route({ params: paperFileParams, query: paperFileQuery }, async ({ event, asker, params, query, now }) => {
  await addFile(asker, params.id, query.name, await readFile(event, MOST_PAPER_BYTES), now)
  return readFront(asker)
})
