import { array, object, string } from 'yup'
import { route } from '~~/server/routing/route'
import { catalogueOf } from '~~/server/templates/catalogue'
import { TEXTED_MODULES } from '~~/shared/modules'

const query = object({
  modules: array(string().oneOf(TEXTED_MODULES).required())
    .transform((_value, original: unknown) => (original === undefined ? [] : [original].flat()))
    .default([]),
})

/** The fields that every one of these modules has. */
export default route({ query }, async ({ query }) => {
  const [first = [], ...others] = Object.values(await catalogueOf(query.modules))
  return first.filter(field => others.every(fields => fields.some(other => other.path === field.path)))
})
