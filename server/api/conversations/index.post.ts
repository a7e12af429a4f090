import { object, string } from 'yup'
import { route } from '~~/server/routing/route'
import { idOf } from '~~/shared/schemas/common'
import { beginWith } from '~~/server/texting/strangers'

const beginForm = object({
  typed: string().max(40).required('Type a number.'),
  /** From which line, where it is not to be chosen. */
  lineId: idOf('line'),
})

export default route({ body: beginForm }, ({ asker, body, now }) =>
  beginWith(asker, body.typed, body.lineId ?? null, now),
)
