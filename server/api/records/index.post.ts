import { route } from '~~/server/routing/route'
import { addRecord } from '~~/server/records/save'
import { makeRecord } from '~~/shared/schemas/record'

export default route({ body: makeRecord }, async ({ asker, body, now }) => ({ id: await addRecord(asker, body, now) }))
