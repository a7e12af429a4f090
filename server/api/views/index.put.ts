import { route } from '~~/server/routing/route'
import { listViews, saveView } from '~~/server/records/views'
import { viewForm } from '~~/shared/schemas/list'

export default route({ body: viewForm }, async ({ asker, body, now }) => {
  await saveView(asker, body, now)
  return listViews(asker, body.module)
})
