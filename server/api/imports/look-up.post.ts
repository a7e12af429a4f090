import { lookUp } from '~~/server/imports/known'
import { route } from '~~/server/routing/route'
import { lookUpForm } from '~~/shared/schemas/import'

export default route({ body: lookUpForm, bytes: 8_000_000 }, ({ asker, body }) => lookUp(asker, body))
