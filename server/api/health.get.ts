import { openRoute } from '~~/server/http/route'

/** Answers once Plauder can serve. */
export default openRoute({}, async () => ({ status: 'ok' }))
