import { theExchange } from '~~/server/calling/port'
import { exchangeTeller } from '~~/server/carriers/tellers'
import { takeTold } from '~~/server/carriers/webhook'
import { openRoute } from '~~/server/http/route'

/** Where the practice exchange reports to. */
export default openRoute({}, async ({ event, now }) => {
  const exchange = theExchange()
  return takeTold(event, exchange, exchangeTeller(exchange), now)
})
