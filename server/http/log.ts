import pino from 'pino'
import { loggedError } from './failure'

/** Neither numbers nor words of people go into it: ids only, and of an error no words but ours. */
export const log = pino({ level: process.env.PLAUDER_LOG ?? 'info', base: undefined, serializers: { err: loggedError } })
