import { listInboxViews } from '~~/server/texting/inbox-views'
import { route } from '~~/server/routing/route'

export default route({}, ({ asker }) => listInboxViews(asker))
