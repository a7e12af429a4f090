import { route } from '~~/server/routing/route'
import { mySignIns } from '~~/server/identity/sign-in'

export default route({}, ({ asker, now }) => mySignIns(asker, now))
