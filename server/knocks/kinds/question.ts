import { asksSomething } from '~~/core/request/asks'
import type { KnockSource } from '../source'

/** A reply with a question. */
export const question: KnockSource = { cameIn: async ({ what, words }) => what === 'text' && asksSomething(words) }
