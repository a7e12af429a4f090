import { carrierNamed } from '~~/server/carriers/registry'
import { carrierTeller } from '~~/server/carriers/tellers'
import { openRoute } from '~~/server/http/route'
import { takeTold } from '~~/server/http/told'

/** Where the practice carrier reports to. */
export default openRoute({}, async ({ event, now }) => {
  const carrier = carrierNamed('practice')
  return takeTold(event, carrier, carrierTeller(carrier), now)
})
