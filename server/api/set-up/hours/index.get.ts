import { readHours } from '~~/server/hours/set-up'
import { route } from '~~/server/routing/route'

export default route({}, ({ asker, now }) => readHours(asker, now))
