import { boolean, object, string } from 'yup'
import { route } from '~~/server/routing/route'
import { idOf } from '~~/shared/schemas/common'
import { beginWith } from '~~/server/texting/strangers'

const beginForm = object({
  typed: string().max(40).required('Type a number.'),
  /** From which line, where it is not to be chosen. */
  lineId: idOf('line'),
  /** Whether it is opened as well where the number is on a record. */
  onRecord: boolean().default(false),
})

export default route({ body: beginForm }, ({ asker, body, now }) =>
  beginWith(asker, body.typed, { lineId: body.lineId ?? null, onRecord: body.onRecord }, now),
)
