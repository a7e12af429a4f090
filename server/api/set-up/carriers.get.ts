import { route } from '~~/server/routing/route'
import { listCarriers } from '~~/server/texting/line-edit'

export default route({}, async ({ asker }) => listCarriers(asker))
