import { route } from '~~/server/http/route'
import { readStuck } from '~~/server/jobs/stuck'

export default route({}, ({ asker }) => readStuck(asker))
