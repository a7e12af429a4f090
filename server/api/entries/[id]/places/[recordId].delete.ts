import { boolean, object } from 'yup'
import { route } from '~~/server/routing/route'
import { takeOffMatter } from '~~/server/timeline/show-on'
import { byId, idOf } from '~~/shared/schemas/common'

const params = byId('entry').shape({ recordId: idOf('record').required() })

export default route(
  { params, query: object({ whole: boolean().default(false) }) },
  ({ asker, params: { id, recordId }, query, now }) => takeOffMatter(asker, id, { recordId, whole: query.whole }, now),
)
