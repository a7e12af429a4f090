import { removeInboxView } from '~~/server/texting/inbox-views'
import { route } from '~~/server/routing/route'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('inbox-view') }, ({ asker, params }) => removeInboxView(asker, params.id))
