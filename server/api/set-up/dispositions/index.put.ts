import { saveDisposition } from '~~/server/calling/disposition-edit'
import { route } from '~~/server/routing/route'
import { dispositionForm } from '~~/shared/schemas/disposition'

export default route({ body: dispositionForm }, ({ asker, body, now }) => saveDisposition(asker, body, now))
