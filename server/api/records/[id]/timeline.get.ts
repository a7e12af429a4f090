import { array, number, object } from 'yup'
import { route } from '~~/server/routing/route'
import { readAround, readEntries, readNewer, readTimeline } from '~~/server/timeline/read'
import { byId, idIfSeen } from '~~/shared/schemas/common'

const query = object({
  beforeAt: number().integer(),
  beforeId: idIfSeen(),
  afterAt: number().integer(),
  afterId: idIfSeen(),
  /** An entry that somebody wants to see with what stands around it. */
  around: idIfSeen(),
  /** Single entries, after a notice. */
  only: array(idIfSeen().required())
    .max(50)
    .transform((_value, original: unknown) => (original === undefined ? undefined : [original].flat()))
    .default(undefined),
})

export default route({ params: byId('record'), query }, async ({ asker, params: { id }, query }) => {
  if (query.only) return { entries: await readEntries(asker, id, query.only), more: false, newer: false }
  if (query.around) return readAround(asker, id, query.around)
  const after = cursor(query.afterAt, query.afterId)
  return after ? readNewer(asker, id, after) : readTimeline(asker, id, cursor(query.beforeAt, query.beforeId))
})

const cursor = (at: number | undefined, id: string | undefined) => at !== undefined && id ? { at, id } : undefined
