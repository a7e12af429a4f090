import { route } from '~~/server/routing/route'
import { readStuck } from '~~/server/tellers/stuck'

export default route({}, ({ asker }) => readStuck(asker))
