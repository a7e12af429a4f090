import { getHeaders } from 'h3'
import { takeCallEvent } from '~~/server/calling/events'
import { theExchange } from '~~/server/calling/port'
import { readBytes } from '~~/server/http/body'
import { Problem } from '~~/server/http/problem'
import { openRoute } from '~~/server/http/route'

/** Where the practice exchange reports to. Answered only once the event is committed. */
export default openRoute({}, async ({ event, now }) => {
  const told = theExchange().readReport(await readBytes(event, 65_536), getHeaders(event))
  if (!told) throw new Problem(401, 'bad-signature', 'Not signed', 'The signature is wrong or older than five minutes, so the report is not taken.')
  if (!await takeCallEvent(theExchange().name, told, now)) throw new Problem(404, 'no-such-call', 'No such call', 'This call is not known here yet. Tell it again in a moment.')
  return { taken: true }
})
