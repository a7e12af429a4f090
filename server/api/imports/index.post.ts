import { beginImport } from '~~/server/imports/begin'
import { route } from '~~/server/routing/route'
import { importForm } from '~~/shared/schemas/import'

export default route({ body: importForm }, ({ asker, body, now }) => beginImport(asker, body, now))
