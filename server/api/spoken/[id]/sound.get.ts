import { setResponseHeaders } from 'h3'
import { hearSpoken } from '~~/server/calling/spoken'
import { route } from '~~/server/routing/route'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('spoken') }, async ({ event, asker, params }) => {
  const sound = await hearSpoken(asker, params.id)
  setResponseHeaders(event, {
    'content-type': 'audio/wav',
    'content-disposition': 'inline',
    'content-security-policy': 'default-src \'none\'',
  })
  return sound
})
