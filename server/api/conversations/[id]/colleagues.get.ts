import { route } from '~~/server/routing/route'
import { whoAnswers } from '~~/server/texting/assign'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('conversation') }, ({ asker, params }) => whoAnswers(asker, params.id))
