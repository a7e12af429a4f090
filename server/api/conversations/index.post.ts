import { object, string } from 'yup'
import { route } from '~~/server/routing/route'
import { beginWith } from '~~/server/texting/strangers'

export default route({ body: object({ typed: string().max(40).required('Type a number.') }) }, ({ asker, body, now }) =>
  beginWith(asker, body.typed, now),
)
