import { getCookie, setResponseHeader } from 'h3'
import { showMetrics } from '~~/server/metrics/show'
import { openRoute } from '~~/server/routing/route'
import { SIGN_IN_COOKIE } from '~~/server/routing/sign-in-cookies'

/** For whoever watches over Plauder: OpenMetrics, for an admin or with a token. */
export default openRoute({ uncounted: true }, async ({ event, now }) => {
  const { authorization } = event.node.req.headers
  const { type, text } = await showMetrics({ authorization, signIn: getCookie(event, SIGN_IN_COOKIE) }, now)
  setResponseHeader(event, 'content-type', type)
  return text
})
