import smpp from 'smpp'

/** Octets of messages go and come as they are: in which characters, is ours to say. */
for (const command of ['submit_sm', 'deliver_sm']) delete smpp.commands[command]!.params!.short_message!.filter
delete smpp.tlvs.message_payload!.filter

export const { connect, PDU, errors } = smpp
export type Pdu = InstanceType<typeof smpp.PDU>
export type PduFields = ConstructorParameters<typeof smpp.PDU>[1]
