import { boolean, object } from 'yup'
import { route } from '~~/server/routing/route'
import { showOnMatter } from '~~/server/timeline/show-on'
import { byId, idOf } from '~~/shared/schemas/common'

const placesForm = object({
  recordId: idOf('record').required('Choose a deal, a job or a case.'),
  /** All texts so far with this number over this line, not this one alone. */
  whole: boolean().default(false),
})

export default route({ params: byId('entry'), body: placesForm }, ({ asker, params, body, now }) =>
  showOnMatter(asker, params.id, body, now),
)
