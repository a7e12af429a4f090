import { route } from '~~/server/routing/route'
import { dropPicture } from '~~/server/texting/pictures'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('picture') }, ({ asker, params }) => dropPicture(asker, params.id))
