import { saveInboxView } from '~~/server/texting/inbox-views'
import { route } from '~~/server/routing/route'
import { inboxViewForm } from '~~/shared/schemas/inbox'

export default route({ body: inboxViewForm }, ({ asker, body, now }) => saveInboxView(asker, body, now))
