import { writeTerms } from '~~/server/identity/terms'
import { route } from '~~/server/routing/route'
import { termsForm } from '~~/shared/schemas/terms'

export default route({ body: termsForm }, ({ asker, body, now }) => writeTerms(asker, body, now))
