import { readAudit } from '~~/server/identity/audit-log'
import { route } from '~~/server/routing/route'
import { auditQuery } from '~~/shared/schemas/audit'

export default route({ query: auditQuery }, ({ asker, query }) => readAudit(asker, query))
