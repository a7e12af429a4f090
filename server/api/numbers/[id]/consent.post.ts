import { route } from '~~/server/routing/route'
import { decideConsent } from '~~/server/consent/decide'
import { byId } from '~~/shared/schemas/common'
import { consentForm } from '~~/shared/schemas/texting'

export default route({ params: byId('phone'), body: consentForm }, async ({ asker, params, body, now }) => {
  await decideConsent(asker, params.id, body, now)
  return { id: params.id }
})
