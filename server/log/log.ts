import pino from 'pino'
import { settings } from '../settings'
import { loggedError } from './failure'
import { requestId } from './request-id'

/** Neither numbers nor words of people go into it: ids only, and of an error no words but ours. */
export const log = pino({
  level: settings().PLAUDER_LOG,
  base: undefined,
  serializers: { err: loggedError },
  mixin: () => {
    const request = requestId()
    return request ? { request } : {}
  },
})
