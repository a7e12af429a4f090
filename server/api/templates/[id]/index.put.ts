import { route } from '~~/server/routing/route'
import { changeTemplate } from '~~/server/templates/templates'
import { byId } from '~~/shared/schemas/common'
import { editTemplate } from '~~/shared/schemas/template'

export default route({ params: byId('template'), body: editTemplate }, async ({ asker, params, body, now }) => {
  await changeTemplate(asker, params.id, body, now)
  return { id: params.id }
})
