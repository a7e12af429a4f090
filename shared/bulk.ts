/** What can be done to many records at once. */
export type BulkChange
  = | { kind: 'owner', ownerId: string }
    | { kind: 'stage', stageId: string }
    | { kind: 'add-tag', tag: string }
    | { kind: 'remove-tag', tag: string }
    | { kind: 'add-group', groupId: string }
    | { kind: 'remove-group', groupId: string }

export type BulkKind = BulkChange['kind']
export const BULK_KINDS = ['owner', 'stage', 'add-tag', 'remove-tag', 'add-group', 'remove-group'] as const satisfies readonly BulkKind[]

export const BULK_STATES = ['running', 'done', 'stopped', 'taking-back', 'taken-back'] as const
export type BulkState = typeof BULK_STATES[number]

/** What a change would do, before it does. */
export interface BulkPreview { chosen: number, changes: number, alreadySo: number, notAllowed: number }

export interface BulkProgress { id: string, state: BulkState, total: number, done: number, changed: number, words: string }
