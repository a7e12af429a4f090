import { object } from 'yup'
import { route } from '~~/server/routing/route'
import { nameMessage } from '~~/server/texting/name'
import { byId, optionalLine } from '~~/shared/schemas/common'

export default route({ params: byId('entry'), body: object({ name: optionalLine(80) }) }, async ({ asker, params, body, now }) => {
  await nameMessage(asker, params.id, body.name, now)
  return { id: params.id }
})
