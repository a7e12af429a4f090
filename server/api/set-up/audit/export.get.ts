import { setResponseHeader } from 'h3'
import { exportAudit } from '~~/server/identity/audit-log'
import { route } from '~~/server/routing/route'
import { auditExport } from '~~/shared/schemas/audit'

export default route({ query: auditExport }, async ({ event, asker, query, now }) => {
  const rows = await exportAudit(asker, query, now)
  setResponseHeader(event, 'content-type', 'text/csv; charset=utf-8')
  setResponseHeader(event, 'content-disposition', `attachment; filename="audit-${now.toISOString().slice(0, 10)}.csv"`)
  return rows
})
