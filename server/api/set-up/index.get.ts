import { readSetUp } from '~~/server/pages/set-up'
import { route } from '~~/server/routing/route'

export default route({}, ({ asker, now }) => readSetUp(asker, now))
