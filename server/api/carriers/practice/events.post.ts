import { carrierNamed } from '~~/server/carriers/registry'
import { carrierTeller } from '~~/server/carriers/tellers'
import { takeTold } from '~~/server/carriers/webhook'
import { openRoute } from '~~/server/http/route'

/** Where the practice carrier reports to. */
export default openRoute({}, async ({ event, now }) => {
  const carrier = carrierNamed('practice')
  return takeTold(event, carrier, carrierTeller(carrier), now)
})
