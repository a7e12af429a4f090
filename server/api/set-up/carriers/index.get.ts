import { listCarriers } from '~~/server/carriers/accounts'
import { route } from '~~/server/routing/route'

export default route({}, ({ asker, now }) => listCarriers(asker, now))
