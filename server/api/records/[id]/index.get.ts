import { route } from '~~/server/http/route'
import { readRecord } from '~~/server/records/one'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('record') }, ({ asker, params, now }) => readRecord(asker, params.id, now))
