import { readHowICall } from '~~/server/calling/how-i-call'
import { route } from '~~/server/routing/route'

export default route({}, ({ asker }) => readHowICall(asker))
