import { takeRows } from '~~/server/imports/begin'
import { route } from '~~/server/routing/route'
import { byId } from '~~/shared/schemas/common'
import { rowsForm } from '~~/shared/schemas/import'

export default route({ params: byId('import'), body: rowsForm, bytes: 8_000_000 }, ({ asker, params, body }) =>
  takeRows(asker, params.id, body),
)
