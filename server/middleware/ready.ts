import { ready } from '../boot'

/** Nobody is answered before the database is open. */
export default defineEventHandler(async (event) => {
  if (event.path.startsWith('/api/')) await ready()
})
