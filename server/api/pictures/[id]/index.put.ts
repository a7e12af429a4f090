import { readFile } from '~~/server/http/body'
import { route } from '~~/server/routing/route'
import { takePicture } from '~~/server/texting/pictures'
import { MOST_BYTES_IN } from '~~/shared/pictures'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('picture') }, async ({ event, asker, params, now }) =>
  takePicture(asker, params.id, await readFile(event, MOST_BYTES_IN), now),
)
