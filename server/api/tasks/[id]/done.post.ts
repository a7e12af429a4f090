import { boolean, object } from 'yup'
import { setDone } from '~~/server/tasks/tasks'
import { route } from '~~/server/routing/route'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('task'), body: object({ done: boolean().required() }) }, ({ asker, params, body, now }) =>
  setDone(asker, params.id, body.done, now),
)
