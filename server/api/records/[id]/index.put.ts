import { route } from '~~/server/routing/route'
import { readRecord } from '~~/server/pages/record'
import { changeRecord } from '~~/server/records/save'
import { byId } from '~~/shared/schemas/common'
import { editRecord } from '~~/shared/schemas/record'

export default route({ params: byId('record'), body: editRecord }, async ({ asker, params, body, now }) => {
  await changeRecord(asker, params.id, body, now)
  return readRecord(asker, params.id, now)
})
