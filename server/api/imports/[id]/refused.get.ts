import { Readable } from 'node:stream'
import { setResponseHeader } from 'h3'
import { progressOf, refusedRows } from '~~/server/imports/progress'
import { route } from '~~/server/routing/route'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('import') }, async ({ event, asker, params }) => {
  const { fileName } = await progressOf(asker, params.id)
  setResponseHeader(event, 'content-type', 'text/csv; charset=utf-8')
  setResponseHeader(
    event,
    'content-disposition',
    `attachment; filename*=UTF-8''${encodeURIComponent(`refused-${fileName.replace(/\.\w+$/, '')}.csv`)}`,
  )
  return Readable.from(refusedRows(asker, params.id))
})
