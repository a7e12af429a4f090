import { object, string } from 'yup'
import { route } from '~~/server/routing/route'
import { readStranger } from '~~/server/texting/strangers'

export default route({ query: object({ typed: string().max(40).required() }) }, ({ asker, query }) => readStranger(asker, query.typed))
