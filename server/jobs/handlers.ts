import { handingsBack } from '../calling/handings/back'
import { fetchRecordings } from '../calling/recordings'
import { ringAll, takeMessages } from '../calling/ring'
import { importMany } from '../imports/work'
import { changeMany } from '../records/bulk-work'
import { handOver } from '../texting/hand-over'
import { fillBackMany } from '../timeline/fill-back'
import { BULK_CHANGE, FETCH_RECORDING, FILL_BACK, HAND_OVER, HANDING_BACK, IMPORT, RING_ALL, TAKE_MESSAGE } from './kinds'
import type { Handler } from './outbox'

/** Who does the work of each kind of job. */
export const HANDLERS: Record<string, Handler> = {
  [HAND_OVER]: handOver,
  [BULK_CHANGE]: changeMany,
  [FILL_BACK]: fillBackMany,
  [IMPORT]: importMany,
  [TAKE_MESSAGE]: takeMessages,
  [RING_ALL]: ringAll,
  [FETCH_RECORDING]: fetchRecordings,
  [HANDING_BACK]: handingsBack,
}
