/** What of the protocol's package is used: its PDUs, in octets and in fields, over a socket. */
declare module 'smpp' {
  import type { EventEmitter } from 'node:events'
  import type { Server, Socket } from 'node:net'

  namespace smpp {
    type PduFields = Record<string, string | number | Buffer | undefined>

    class PDU {
      constructor(command: string | Buffer, fields?: PduFields)
      command: string
      command_id: number
      command_status: number
      sequence_number: number
      [field: string]: unknown
      isResponse(): boolean
      response(fields?: PduFields): PDU
      toBuffer(): Buffer
    }

    class Session extends EventEmitter {
      socket: Socket
      /** @returns false where nothing can be written any more */
      send(pdu: PDU, answered?: (answer: PDU) => void): boolean
      destroy(): void
    }

    function connect(options: { host: string, port: number, tls?: boolean, servername?: string }): Session
    function createServer(options: { key?: string, cert?: string }, listener: (session: Session) => void): Server

    interface Filtered { filter?: object }
    const commands: Record<string, { params?: Record<string, Filtered> }>
    const tlvs: Record<string, Filtered>
    const errors: Record<string, number>
    const consts: { MESSAGE_STATE: Record<string, number>, ESM_CLASS: Record<string, number> }
    const gsmCoder: { encode: (text: string, table: number) => Buffer, decode: (octets: Buffer, table: number) => string }
  }
  export = smpp
}
