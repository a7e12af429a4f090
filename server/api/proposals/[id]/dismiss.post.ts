import { route } from '~~/server/routing/route'
import { dismissProposal } from '~~/server/consent/decide'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('proposal') }, async ({ asker, params, now }) => {
  await dismissProposal(asker, params.id, now)
  return { id: params.id }
})
