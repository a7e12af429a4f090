// @ts-check
/**
 * The rooms of the server, from the ground up: each may use those before it, and none after it, so that there are no
 * circles. `api/` and what stands in `server/` itself are the roof.
 */
export const ROOMS = [
  'log', 'db', 'http', 'sealing', 'backup', 'reading', 'live', 'identity', 'jobs', 'activity', 'hours', 'records', 'consent', 'templates', 'carriers', 'papers', 'money',
  'texting', 'tasks', 'effects', 'calling', 'bulk', 'knocks', 'mail', 'imports', 'leaving', 'timeline', 'pages', 'tellers', 'metrics', 'beginning', 'routing',
]

/** Whose a file of `server/db/schema` is, where it does not have the name of the room. */
export const SCHEMA_OF = { lists: 'records', groups: 'records', recordings: 'calling', rounds: 'calling', spoken: 'calling' }

/** Who writes another room's tables all the same, and why. */
export const GUESTS = {
  // a firm is laid whole, before there is anybody whose tables these are
  beginning: ['identity', 'records', 'calling', 'texting'],
  // a file's rows become records by the piece, in statements of their own
  imports: ['records', 'activity'],
  // a call that was with nobody on record is with whoever gets its number, in the same statement in which it shows there
  activity: ['calling'],
}

/** @param {string} room what it must leave alone: the rooms above it */
export const above = room => ROOMS.slice(ROOMS.indexOf(room) + 1)
