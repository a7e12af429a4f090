import { getHeaders } from 'h3'
import { openRoute } from '~~/server/http/route'
import { readBytes } from '~~/server/http/body'
import { Problem } from '~~/server/http/problem'
import { carrierNamed } from '~~/server/carriers/registry'
import { takeEvent } from '~~/server/texting/events'

/** Where the practice carrier reports to. Answered only once the event is committed. */
export default openRoute({}, async ({ event, now }) => {
  const report = carrierNamed('practice').readReport(await readBytes(event, 65_536), getHeaders(event))
  if (!report) throw new Problem(401, 'bad-signature', 'Not signed', 'The signature is wrong or older than five minutes, so the report is not taken.')
  await takeEvent('practice', report, now)
  return { taken: true }
})
