import { route } from '~~/server/routing/route'
import { changeTask } from '~~/server/tasks/tasks'
import { byId } from '~~/shared/schemas/common'
import { changeTaskForm } from '~~/shared/schemas/calling'

export default route({ params: byId('task'), body: changeTaskForm }, async ({ asker, params, body, now }) => {
  await changeTask(asker, params.id, body, now)
  return { id: params.id }
})
