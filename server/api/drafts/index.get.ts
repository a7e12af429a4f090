import { route } from '~~/server/routing/route'
import { draftsOf } from '~~/server/texting/drafts'

export default route({}, ({ asker }) => draftsOf(asker))
