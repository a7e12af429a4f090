import { object } from 'yup'
import { route } from '~~/server/routing/route'
import { sayForWhom } from '~~/server/timeline/meant'
import { byId, idOf } from '~~/shared/schemas/common'

const meantForm = object({ recordId: idOf('record').required('Choose whom it is from, or for.') })

export default route({ params: byId('entry'), body: meantForm }, ({ asker, params, body, now }) =>
  sayForWhom(asker, params.id, body.recordId, now),
)
