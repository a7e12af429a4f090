import { readToday } from '~~/server/pages/today'
import { route } from '~~/server/routing/route'

export default route({}, ({ asker, now }) => readToday(asker, now))
