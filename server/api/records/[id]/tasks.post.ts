import { addTask } from '~~/server/tasks/tasks'
import { route } from '~~/server/routing/route'
import { taskForm } from '~~/shared/schemas/calling'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('record'), body: taskForm }, ({ asker, params, body, now }) => addTask(asker, params.id, body, now))
