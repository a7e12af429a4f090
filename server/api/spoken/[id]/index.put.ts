import { saveSpoken } from '~~/server/calling/spoken'
import { route } from '~~/server/routing/route'
import { spokenForm } from '~~/shared/schemas/calling'
import { byId } from '~~/shared/schemas/common'

/** Two minutes of telephone sound, in base64. */
const MOST_BYTES = 6_000_000

export default route({ params: byId('spoken'), body: spokenForm, bytes: MOST_BYTES }, ({ asker, params, body, now }) =>
  saveSpoken(asker, params.id, body, now),
)
