import { openTasks } from '~~/server/tasks/tasks'
import { route } from '~~/server/routing/route'

export default route({}, ({ asker }) => openTasks(asker, 'mine'))
