import { object, string } from 'yup'
import { route } from '~~/server/routing/route'
import { customFieldsOf } from '~~/server/records/fields'
import { MODULES } from '~~/shared/modules'

/** The fields that the firm has added to a module. */
export default route({ query: object({ module: string().oneOf(MODULES).required() }) }, ({ query }) => customFieldsOf(query.module))
