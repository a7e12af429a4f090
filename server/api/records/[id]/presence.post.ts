import { route } from '~~/server/routing/route'
import { look, whoElse } from '~~/server/live/presence'
import { authorize } from '~~/server/records/one'
import { byId } from '~~/shared/schemas/common'
import { presenceForm } from '~~/shared/schemas/presence'

export default route({ params: byId('record'), body: presenceForm, bytes: 256 }, async ({ asker, params: { id }, body, now }) => {
  const { ownerId, teamId } = await authorize(asker, 'record.see', id)
  look(asker, { of: 'record', id }, { ownerId, teamId }, body.state, now)
  return whoElse(asker, { of: 'record', id }, now)
})
