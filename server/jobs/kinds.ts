/** Kinds of jobs in the outbox. */
export const HAND_OVER = 'hand-over'
export const BULK_CHANGE = 'bulk-change'
export const IMPORT = 'import'
export const FILL_BACK = 'fill-back'
export const TAKE_MESSAGE = 'take-message'
export const RING_ALL = 'ring-all'
export const RING_ALONG = 'ring-along'
export const FETCH_RECORDING = 'fetch-recording'
export const FETCH_PICTURE = 'fetch-picture'
export const TRANSFER_BACK = 'transfer-back'
export const FIND_CALL = 'find-call'
export const RETURN_CONVERSATION = 'return-conversation'
export const CAME_IN = 'came-in'
export const MAIL_WAITING = 'mail-waiting'
export const CHECK_BULK = 'check-bulk'
export const SEND_BULK = 'send-bulk'

export type JobKind
  = | typeof HAND_OVER
    | typeof BULK_CHANGE
    | typeof IMPORT
    | typeof FILL_BACK
    | typeof TAKE_MESSAGE
    | typeof RING_ALL
    | typeof RING_ALONG
    | typeof FETCH_RECORDING
    | typeof FETCH_PICTURE
    | typeof TRANSFER_BACK
    | typeof FIND_CALL
    | typeof RETURN_CONVERSATION
    | typeof CAME_IN
    | typeof MAIL_WAITING
    | typeof CHECK_BULK
    | typeof SEND_BULK

/** What each is called where an admin reads of it. */
export const JOB_WORDS: Record<JobKind, string> = {
  'hand-over': 'Handing a text to its carrier',
  'bulk-change': 'Changing many records',
  'import': 'Importing a file',
  'fill-back': 'Bringing a person’s history onto a linked record',
  'take-message': 'Sending a caller to the mailbox',
  'ring-all': 'Ringing everybody who answers the line',
  'ring-along': 'Ringing colleagues’ own telephones',
  'fetch-recording': 'Fetching a recording',
  'fetch-picture': 'Fetching a picture that came in',
  'transfer-back': 'Giving a call back that nobody took',
  'find-call': 'Finding out what became of a call',
  'return-conversation': 'Bringing back a conversation that was put back',
  'came-in': 'Handing out what came in, and telling of what calls for action',
  'mail-waiting': 'Mailing a colleague of who waits',
  'check-bulk': 'Checking the people of a bulk text',
  'send-bulk': 'Sending a bulk text',
}
