import { boolean, object } from 'yup'
import { retireDisposition } from '~~/server/calling/disposition-edit'
import { route } from '~~/server/routing/route'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('disposition'), body: object({ retired: boolean().required() }) }, ({ asker, params, body, now }) =>
  retireDisposition(asker, params.id, body.retired, now),
)
