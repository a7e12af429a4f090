import { openTasks } from '~~/server/calling/tasks'
import { route } from '~~/server/http/route'

export default route({}, ({ asker }) => openTasks(asker, 'mine'))
