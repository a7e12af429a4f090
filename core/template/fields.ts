export const FIELD_KINDS = ['text', 'number', 'money', 'date', 'time', 'choice', 'yes-no', 'phone', 'link', 'mail'] as const
export type FieldKind = typeof FIELD_KINDS[number]

/** Whose field it is, in the words of the list from which it is chosen. */
export type FieldGroup
  = | 'person'
    | 'company'
    | 'deal'
    | 'job'
    | 'case'
    | 'appointment'
    | 'payment'
    | 'agreement'
    | 'handover'
    | 'sender'
    | 'firm'
    | 'message'
    | 'fill_in'

/** One entry of the field catalogue, which templates, filters, forms and import all read. */
export interface Field {
  /** As written in a template: `person.first_name`. */
  path: string
  group: FieldGroup
  label: string
  kind: FieldKind
  /** For previews where no record is at hand; invented. */
  example: string
  /** What a choice is made from. */
  options?: string[]
}

/** The values that a template may use: groups of plain values. Nothing else is ever given to it. */
export type FieldValues = Partial<Record<FieldGroup, Record<string, unknown>>>
  & {
    /** By the key of a fill-in, amounts as somebody typed them; no template can write this name. */
    'fill-in as typed'?: Record<string, string>
  }
