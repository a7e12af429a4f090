import { openRoute } from '~~/server/routing/route'

/** Whether this process is alive: it asks nobody else, so that a database that is away is no reason to end it. */
export default openRoute({ uncounted: true }, async () => ({ status: 'ok' }))
