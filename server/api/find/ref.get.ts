import { object, string } from 'yup'
import { route } from '~~/server/routing/route'
import { findRef } from '~~/server/timeline/find-ref'

export default route({ query: object({ typed: string().max(40).required() }) }, ({ asker, query }) => findRef(asker, query.typed))
