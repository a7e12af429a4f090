import { object } from 'yup'
import { route } from '~~/server/http/route'
import { showOnMatter } from '~~/server/timeline/show-on'
import { byId, uuid } from '~~/shared/schemas/common'

export default route({ params: byId, body: object({ recordId: uuid().required('Choose a deal, a job or a case.') }) }, ({ asker, params, body, now }) => showOnMatter(asker, params.id, body.recordId, now))
