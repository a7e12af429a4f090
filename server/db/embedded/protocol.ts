/** With which byte PostgreSQL's wire protocol ends a connection; nothing answers it. */
export const TERMINATE = 'X'.charCodeAt(0)

/** What the application's thread and the database's thread say to each other. */
export interface WorkerOptions {
  /** A folder, or undefined for a database in memory. */
  folder?: string
  /** A tar of an empty, migrated database, which spares the first start an initdb. */
  startFrom?: string
}

export type Request
  = | { channel: number, wire: Uint8Array }
    | { id: number, ask: 'copy-from', sql: string, data: string }
    | { id: number, ask: 'dump' }
    /** The files as they are, into a folder that is not there yet. */
    | { id: number, ask: 'copy-to', folder: string }
    | { id: number, ask: 'close' }

export type Reply
  = | { ready: true }
    | { channel: number, wire: Uint8Array }
    | { id: number, result?: Uint8Array }
    | { id: number, error: string }
    | { fatal: string }
