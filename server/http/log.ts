import pino from 'pino'

/** Neither numbers nor words of people go into it: ids only. */
export const log = pino({ level: process.env.PLAUDER_LOG ?? 'info', base: undefined })
