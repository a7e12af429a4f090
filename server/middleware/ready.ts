import { ready } from '../boot'

/** Nobody is answered before the database is open, but for whoever only asks whether we are alive. */
export default defineEventHandler(async (event) => {
  if (event.path.startsWith('/api/') && event.path !== '/api/health') await ready()
})
