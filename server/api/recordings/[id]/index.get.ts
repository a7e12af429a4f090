import { setResponseHeaders } from 'h3'
import { hearRecording } from '~~/server/calling/recordings'
import { route } from '~~/server/routing/route'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('recording') }, async ({ event, asker, params, now }) => {
  // never from a cache: each time that somebody listens is noted
  const sound = await hearRecording(asker, params.id, now)
  setResponseHeaders(event, {
    'content-type': 'audio/wav',
    'content-disposition': 'inline',
    'content-security-policy': 'default-src \'none\'',
  })
  return sound
})
