import { object, string } from 'yup'
import { route } from '~~/server/http/route'
import { pipelinesOf } from '~~/server/records/pipelines'
import { PIPELINE_MODULES } from '~~/shared/modules'

export default route({ query: object({ module: string().oneOf(PIPELINE_MODULES).required() }) }, ({ query }) => pipelinesOf(query.module))
