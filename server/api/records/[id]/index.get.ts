import { route } from '~~/server/routing/route'
import { readRecord } from '~~/server/pages/record'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('record') }, ({ asker, params, now }) => readRecord(asker, params.id, now))
