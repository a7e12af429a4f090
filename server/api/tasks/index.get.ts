import { openTasks } from '~~/server/tasks/tasks'
import { route } from '~~/server/http/route'

export default route({}, ({ asker }) => openTasks(asker, 'mine'))
