import type { FieldKind } from '../core/template/fields'

/** A field that the firm has added to a module, as Set-up shows it. */
export interface OwnField { id: string, key: string, label: string, kind: FieldKind, example: string, options: string[], retired: boolean }
