import { checkBulks } from './bulk/check'
import { sendBulks } from './bulk/send'
import { findCalls } from './calling/find-call'
import { transfersBack } from './calling/transfers/back'
import { fetchRecordings } from './calling/recordings'
import { ringAll, takeMessages } from './calling/ring'
import { ringAlong } from './calling/ring-along'
import { seeToWhatCameIn } from './knocks/came-in'
import { mailWaiting } from './mail/waiting'
import { importMany } from './imports/work'
import { changeMany } from './records/bulk-work'
import { fetchPictures } from './texting/pictures-in'
import { returnConversations } from './texting/owed'
import { handOver, handOverBroke } from './texting/hand-over'
import { fillBackMany } from './activity/fill-back'
import {
  BULK_CHANGE,
  FETCH_PICTURE,
  FETCH_RECORDING,
  FILL_BACK,
  FIND_CALL,
  HAND_OVER,
  TRANSFER_BACK,
  IMPORT,
  CAME_IN,
  MAIL_WAITING,
  CHECK_BULK,
  SEND_BULK,
  RETURN_CONVERSATION,
  RING_ALL,
  RING_ALONG,
  TAKE_MESSAGE,
  type JobKind,
} from './jobs/kinds'
import type { Ending, Handler, Workshop } from './jobs/outbox'

/** Who does the work of each kind of job. */
const HANDLERS: Record<JobKind, Handler> = {
  [HAND_OVER]: handOver,
  [BULK_CHANGE]: changeMany,
  [FILL_BACK]: fillBackMany,
  [IMPORT]: importMany,
  [TAKE_MESSAGE]: takeMessages,
  [RING_ALL]: ringAll,
  [RING_ALONG]: ringAlong,
  [FETCH_PICTURE]: fetchPictures,
  [FETCH_RECORDING]: fetchRecordings,
  [TRANSFER_BACK]: transfersBack,
  [FIND_CALL]: findCalls,
  [RETURN_CONVERSATION]: returnConversations,
  [CAME_IN]: seeToWhatCameIn,
  [MAIL_WAITING]: mailWaiting,
  [CHECK_BULK]: checkBulks,
  [SEND_BULK]: sendBulks,
}

const ENDINGS: Partial<Record<JobKind, Ending>> = { [HAND_OVER]: handOverBroke }

export const WORKSHOP: Workshop = { handlers: HANDLERS, endings: ENDINGS }
