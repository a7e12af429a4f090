/** Kinds of jobs in the outbox. */
export const HAND_OVER = 'hand-over'
export const BULK_CHANGE = 'bulk-change'
export const IMPORT = 'import'
export const FILL_BACK = 'fill-back'
export const TAKE_MESSAGE = 'take-message'
export const RING_ALL = 'ring-all'
export const FETCH_RECORDING = 'fetch-recording'
export const HANDING_BACK = 'handing-back'
