import { setResponseHeader } from 'h3'
import { route } from '~~/server/routing/route'
import { exportRecords } from '~~/server/records/export'
import { MODULE_FACTS } from '~~/shared/modules'
import { exportQuery } from '~~/shared/schemas/list'

const TYPES = { csv: 'text/csv; charset=utf-8', vcf: 'text/vcard; charset=utf-8' }

export default route({ query: exportQuery }, async ({ event, asker, query, now }) => {
  const records = await exportRecords(asker, query, now)
  setResponseHeader(event, 'content-type', TYPES[query.format])
  setResponseHeader(
    event,
    'content-disposition',
    `attachment; filename="${MODULE_FACTS[query.module].slug}-${now.toISOString().slice(0, 10)}.${query.format}"`,
  )
  return records
})
