import { route } from '~~/server/http/route'
import { mySignIns } from '~~/server/identity/sign-in'

export default route({}, ({ asker, now }) => mySignIns(asker, now))
