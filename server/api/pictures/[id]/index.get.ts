import { setResponseHeaders } from 'h3'
import { route } from '~~/server/routing/route'
import { readPicture } from '~~/server/texting/pictures'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('picture') }, async ({ event, asker, params }) => {
  const { type, bytes } = await readPicture(asker, params.id)
  setResponseHeaders(event, { 'content-type': type, 'content-disposition': 'inline', 'content-security-policy': 'default-src \'none\'' })
  return bytes
})
