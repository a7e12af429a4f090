import { route } from '~~/server/routing/route'
import { moveRecord } from '~~/server/records/move'
import { byId } from '~~/shared/schemas/common'
import { moveForm } from '~~/shared/schemas/record'

export default route({ params: byId('record'), body: moveForm }, ({ asker, params, body, now }) => moveRecord(asker, params.id, body, now))
