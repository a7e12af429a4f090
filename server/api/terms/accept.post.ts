import { acceptTerms } from '~~/server/identity/terms'
import { route } from '~~/server/routing/route'
import { acceptTermsForm } from '~~/shared/schemas/terms'

export default route({ body: acceptTermsForm }, ({ asker, body, now }) => acceptTerms(asker, body.version, now))
