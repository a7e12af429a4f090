/** What became of a short message (SMPP 3.4, 5.2.28). */
export const FATES = ['on-the-way', 'delivered', 'not-delivered'] as const
export type Fate = typeof FATES[number]

export interface Receipt {
  /** As the SMS centre named it when it took it. */
  ref: string
  fate: Fate
  /** Why it did not arrive, as the network says it: from `err`, or the state's own name. */
  code: string | null
}

/** By the words of a receipt's text (SMPP 3.4, Appendix B, table B-2) and by the octet of message_state (5.2.28). */
const FATE_OF: Record<string, Fate> = {
  ENROUTE: 'on-the-way', ACCEPTD: 'on-the-way', UNKNOWN: 'on-the-way',
  DELIVRD: 'delivered',
  EXPIRED: 'not-delivered', DELETED: 'not-delivered', UNDELIV: 'not-delivered', REJECTD: 'not-delivered',
}
const BY_OCTET = [null, 'ENROUTE', 'DELIVRD', 'EXPIRED', 'DELETED', 'UNDELIV', 'ACCEPTD', 'UNKNOWN', 'REJECTD']

/** Our codes for what there are words for already. */
const CODES: Record<string, string> = {
  EXPIRED: 'recipient-unreachable', REJECTD: 'blocked', DELETED: 'deleted', UNDELIV: 'recipient-unreachable',
}

/**
 * Reads a delivery receipt. Where fields say it apart from the text (receipted_message_id and message_state), they are believed;
 * the text is read as Appendix B shows it, whatever SMS centres leave out of it, in whatever case and order.
 *
 * @param text of the short message, such as `id:0f3a sub:001 dlvrd:001 submit date:2611271200 … stat:DELIVRD err:000 text:…`
 * @returns null for what is none
 */
export function readReceipt(text: string, fields: { messageId?: string | null, messageState?: number | null } = {}): Receipt | null {
  const said = (name: string) => new RegExp(`(?:^|\\s)${name}:\\s*(\\S+)`, 'i').exec(text)?.[1] ?? null
  const ref = fields.messageId || said('id')
  const state = (fields.messageState ? BY_OCTET[fields.messageState] : null) ?? said('stat')?.toUpperCase() ?? null
  const fate = state ? FATE_OF[state] : undefined
  if (!ref || !state || !fate) return null
  return { ref, fate, code: fate === 'not-delivered' ? codeOf(state, said('err')) : null }
}

/** A network's own number says more than the state where there is one. */
const codeOf = (state: string, error: string | null): string => error && !/^0+$/.test(error) ? `network-${error}` : CODES[state]!
