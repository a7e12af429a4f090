import { setResponseHeader } from 'h3'
import { readFileOf } from '~~/server/papers/written'
import { route } from '~~/server/routing/route'
import { heldFileParams } from '~~/shared/schemas/papers'

export default route({ params: heldFileParams }, async ({ event, asker, params }) => {
  const { name, type, bytes } = await readFileOf(asker, params.id)
  setResponseHeader(event, 'content-type', type)
  // what somebody put in here is no page of ours
  setResponseHeader(event, 'content-disposition', `attachment; filename*=UTF-8''${encodeURIComponent(name)}`)
  setResponseHeader(event, 'x-content-type-options', 'nosniff')
  return bytes
})
