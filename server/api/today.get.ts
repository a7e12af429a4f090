import { readToday } from '~~/server/calling/today'
import { route } from '~~/server/http/route'

export default route({}, ({ asker, now }) => readToday(asker, now))
