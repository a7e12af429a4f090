import { readTerms } from '~~/server/identity/terms'
import { route } from '~~/server/routing/route'

export default route({}, ({ asker }) => readTerms(asker))
