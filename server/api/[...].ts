import { openRoute } from '~~/server/routing/route'
import { Problem } from '~~/server/http/problem'

export default openRoute({}, async () => {
  throw new Problem(404, 'no-such-route', 'No such address', 'The interface has nothing at this address, or not by this method.')
})
