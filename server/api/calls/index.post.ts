import { dial } from '~~/server/calling/dial'
import { route } from '~~/server/http/route'
import { dialForm } from '~~/shared/schemas/calling'

export default route({ body: dialForm }, ({ asker, body, now }) => dial(asker, body, now))
