import { dial } from '~~/server/calling/dial'
import { myShelf } from '~~/server/calling/mine'
import { route } from '~~/server/routing/route'
import { dialForm } from '~~/shared/schemas/calling'

/** Answers with the shelf as well, so that the call is on it without asking once more. */
export default route({ body: dialForm }, async ({ asker, body, now }) => ({
  ...(await dial(asker, body, now)),
  ...(await myShelf(asker, new Date())),
}))
