import { readFront } from '~~/server/papers/front'
import { removeFile } from '~~/server/papers/written'
import { route } from '~~/server/routing/route'
import { heldFileParams } from '~~/shared/schemas/papers'

export default route({ params: heldFileParams }, async ({ asker, params, now }) => {
  await removeFile(asker, params.id, now)
  return readFront(asker)
})
