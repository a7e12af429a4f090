import { readHowICall } from '~~/server/calling/how-i-call'
import { route } from '~~/server/http/route'

export default route({}, ({ asker }) => readHowICall(asker))
