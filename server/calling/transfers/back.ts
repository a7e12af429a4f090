import { settle, type Handler } from '../../jobs/outbox'
import { transferRunsOut } from './transfer'

/** Calls that rang with a colleague for long enough go back to whoever handed them. */
export const transfersBack: Handler = async (claims, now) => claims.map(claim => () => settle(claim, now(), async () => {
  await transferRunsOut(String(claim.payload.transferId), String(claim.payload.callId), now())
  return 'done'
}))
