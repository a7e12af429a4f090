import { readSetUp } from '~~/server/pages/set-up'
import { route } from '~~/server/routing/route'

export default route({}, ({ asker }) => readSetUp(asker))
