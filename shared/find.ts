import type { ActivityKind } from '../core/timeline/kinds'

/** Something that was said, as it is found by its words. */
export interface Said { id: string, at: number, kind: ActivityKind, words: string, recordId: string, recordName: string }
