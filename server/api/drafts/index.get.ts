import { route } from '~~/server/http/route'
import { draftsOf } from '~~/server/texting/drafts'

export default route({}, ({ asker }) => draftsOf(asker))
