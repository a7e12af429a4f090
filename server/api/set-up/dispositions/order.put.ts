import { orderDispositions } from '~~/server/calling/disposition-edit'
import { route } from '~~/server/routing/route'
import { dispositionOrderForm } from '~~/shared/schemas/disposition'

export default route({ body: dispositionOrderForm }, ({ asker, body, now }) => orderDispositions(asker, body.module, body.ids, now))
