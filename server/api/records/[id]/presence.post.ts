import { object, string } from 'yup'
import { route } from '~~/server/routing/route'
import { look, whoElse } from '~~/server/live/presence'
import { authorize } from '~~/server/records/one'
import { byId } from '~~/shared/schemas/common'

const body = object({ state: string().oneOf(['looking', 'writing', 'gone'] as const).required() })

export default route({ params: byId('record'), body, bytes: 256 }, async ({ asker, params, body, now }) => {
  const found = await authorize(asker, 'record.see', params.id)
  look(asker, params.id, { ownerId: found.ownerId, teamId: found.teamId }, body.state, now)
  return whoElse(asker, params.id, now)
})
