import { saveHowICall } from '~~/server/calling/how-i-call'
import { route } from '~~/server/routing/route'
import { howICallForm } from '~~/shared/schemas/calling'

export default route({ body: howICallForm }, ({ asker, body, now }) => saveHowICall(asker, body, now))
