import { theExchange } from '~~/server/calling/port'
import { exchangeTeller } from '~~/server/tellers/tellers'
import { takeTold } from '~~/server/tellers/webhook'
import { openRoute } from '~~/server/routing/route'

/** Where the practice exchange reports to. */
export default openRoute({}, async ({ event, now }) => {
  const exchange = theExchange()
  return takeTold(event, exchange, exchangeTeller(exchange), now)
})
