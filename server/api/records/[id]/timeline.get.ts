import { array, number, object } from 'yup'
import { route } from '~~/server/http/route'
import { readEntries, readTimeline } from '~~/server/timeline/read'
import { byId, uuid } from '~~/shared/schemas/common'

const query = object({
  beforeAt: number().integer(),
  beforeId: uuid(),
  /** Single entries, after a notice. */
  only: array(uuid().required()).max(50).transform((_value, original: unknown) => original === undefined ? undefined : [original].flat()).default(undefined),
})

export default route({ params: byId, query }, async ({ asker, params, query }) => {
  if (query.only) return { entries: await readEntries(asker, params.id, query.only), more: false }
  const before = query.beforeAt !== undefined && query.beforeId ? { at: query.beforeAt, id: query.beforeId } : undefined
  return readTimeline(asker, params.id, before)
})
