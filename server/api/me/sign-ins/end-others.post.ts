import { route } from '~~/server/http/route'
import { endMine } from '~~/server/identity/sign-in'

export default route({}, ({ asker, now }) => endMine(asker, 'all-others', now))
