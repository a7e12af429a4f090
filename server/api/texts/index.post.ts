import { route } from '~~/server/routing/route'
import { sendText } from '~~/server/texting/send'
import { sendForm } from '~~/shared/schemas/texting'

export default route({ body: sendForm }, ({ asker, body, now }) => sendText(asker, body, now))
