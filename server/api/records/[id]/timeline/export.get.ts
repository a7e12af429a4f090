import { setResponseHeader } from 'h3'
import { route } from '~~/server/routing/route'
import { exportTimeline } from '~~/server/timeline/export'
import { byId } from '~~/shared/schemas/common'
import { timelineExport } from '~~/shared/schemas/timeline'

const TYPES = { csv: 'text/csv; charset=utf-8', jsonl: 'application/jsonl; charset=utf-8' }

export default route({ params: byId('record'), query: timelineExport }, async ({ event, asker, params, query, now }) => {
  const entries = await exportTimeline(asker, params.id, query, now)
  setResponseHeader(event, 'content-type', TYPES[query.format])
  setResponseHeader(
    event,
    'content-disposition',
    `attachment; filename="timeline-${now.toISOString().slice(0, 10)}.${query.format}"`,
  )
  return entries
})
