import { route } from '~~/server/routing/route'
import { removeView } from '~~/server/records/views'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('view') }, ({ asker, params }) => removeView(asker, params.id))
