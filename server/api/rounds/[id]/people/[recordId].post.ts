import { object } from 'yup'
import { sayOf } from '~~/server/calling/rounds/standing'
import { route } from '~~/server/http/route'
import { uuid } from '~~/shared/schemas/common'
import { roundPersonForm } from '~~/shared/schemas/round'

export default route({ params: object({ id: uuid().required(), recordId: uuid().required() }), body: roundPersonForm }, ({ asker, params, body, now }) => sayOf(asker, params.id, params.recordId, body.say, now))
