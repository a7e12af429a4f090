import { route } from '~~/server/routing/route'
import { keepDraft } from '~~/server/texting/drafts'
import { draftForm } from '~~/shared/schemas/texting'

export default route({ body: draftForm }, ({ asker, body }) => keepDraft(asker, body))
