import { object, string } from 'yup'
import { route } from '~~/server/routing/route'
import { templateFrom } from '~~/server/templates/from-text'
import { byId } from '~~/shared/schemas/common'

export default route(
  {
    params: byId('record'),
    body: object({ text: string().required('Write the text first.').max(5_000, 'A template holds 5,000 characters.') }),
  },
  ({ asker, params, body }) => templateFrom(asker, params.id, body.text),
)
