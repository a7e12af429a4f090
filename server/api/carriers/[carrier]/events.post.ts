import { object, string } from 'yup'
import { carrierRegistered } from '~~/server/carriers/registry'
import { carrierTeller } from '~~/server/tellers/tellers'
import { takeTold } from '~~/server/tellers/webhook'
import { notFound } from '~~/server/http/problem'
import { openRoute } from '~~/server/routing/route'

/** Where carriers report to that tell us by themselves. */
export default openRoute({ params: object({ carrier: string().max(60).required() }) }, async ({ event, params, now }) => {
  const carrier = carrierRegistered(params.carrier)
  if (!carrier?.webhook) throw notFound('carrier')
  return takeTold(event, carrier.webhook, carrierTeller(carrier), now)
})
