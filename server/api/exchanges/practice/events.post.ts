import { theExchange } from '~~/server/calling/port'
import { exchangeTeller } from '~~/server/carriers/tellers'
import { openRoute } from '~~/server/http/route'
import { takeTold } from '~~/server/http/told'

/** Where the practice exchange reports to. */
export default openRoute({}, async ({ event, now }) => {
  const exchange = theExchange()
  return takeTold(event, exchange, exchangeTeller(exchange), now)
})
