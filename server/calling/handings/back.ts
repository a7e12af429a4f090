import { settle, type Handler } from '../../jobs/outbox'
import { handingRunsOut } from './hand'

/** Calls that rang with a colleague for long enough go back to whoever handed them. */
export const handingsBack: Handler = async (claims, now) => claims.map(claim => () => settle(claim, now(), async () => {
  await handingRunsOut(String(claim.payload.handingId), String(claim.payload.callId), now())
  return 'done'
}))
