/**
 * What an SMS centre's answer to a text means (command_status, SMPP 3.4, 5.1.3).
 * - taken
 * - busy: it is there, and takes more in a moment
 * - try-later: it has not taken this one, for no fault of the text
 * - refused: it will never take it; `code` says why
 */
export type Answer = { is: 'taken' } | { is: 'busy' } | { is: 'try-later' } | { is: 'refused', code: string }

/** ESME_RMSGQFUL, ESME_RTHROTTLED. */
const BUSY = [0x14, 0x58]
/** ESME_RSYSERR, ESME_RINVBNDSTS, ESME_RX_T_APPN: its own trouble. */
const ITS_OWN = [0x08, 0x04, 0x64]
const REFUSED: Record<number, string> = {
  0x01: 'too-long', // ESME_RINVMSGLEN
  0x0A: 'sender-unknown', // ESME_RINVSRCADR
  0x0B: 'recipient-unknown', // ESME_RINVDSTADR
  0x48: 'sender-unknown', // ESME_RINVSRCTON
  0x49: 'sender-unknown', // ESME_RINVSRCNPI
  0x50: 'recipient-unknown', // ESME_RINVDSTTON
  0x51: 'recipient-unknown', // ESME_RINVDSTNPI
}

export function readStatus(status: number): Answer {
  if (status === 0) return { is: 'taken' }
  if (BUSY.includes(status)) return { is: 'busy' }
  if (ITS_OWN.includes(status)) return { is: 'try-later' }
  return { is: 'refused', code: REFUSED[status] ?? `smpp-${hex(status)}` }
}

/** Why nobody was let in, for an admin to do something about; the same numbers. */
export function whyNotBound(status: number): string {
  switch (status) {
    case 0x05: return 'It says that this account is connected already. Ask for another account, or end the other connection.'
    case 0x0D: return 'It did not let the account in, and does not say why. Look at the system id, the password and the way of connecting.'
    case 0x0E: return 'The password is wrong.'
    case 0x0F: return 'It does not know this system id.'
    case 0x53: return 'It does not know this system type. Many want it to be empty.'
    default: return `It answered with the status ${hex(status)}.`
  }
}

const hex = (status: number) => `0x${status.toString(16).padStart(8, '0')}`
