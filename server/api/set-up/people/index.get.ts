import { listPeople } from '~~/server/identity/people'
import { route } from '~~/server/routing/route'

export default route({}, ({ asker }) => listPeople(asker))
