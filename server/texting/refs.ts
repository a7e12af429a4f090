import { randomBytes } from 'node:crypto'
import { newRef } from '~~/core/message/ref'

/** A reference for a text that has none yet. */
export const freshRef = (): string => newRef(() => randomBytes(4).readUInt32BE())
