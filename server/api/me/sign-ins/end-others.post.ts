import { route } from '~~/server/routing/route'
import { endMine } from '~~/server/identity/sign-in'

export default route({}, ({ asker, now }) => endMine(asker, 'all-others', now))
