import { boolean, object } from 'yup'
import { route } from '~~/server/routing/route'
import { setFavourite } from '~~/server/templates/templates'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('template'), body: object({ favourite: boolean().required() }) }, ({ asker, params, body }) =>
  setFavourite(asker, params.id, body.favourite),
)
