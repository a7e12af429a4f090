/** What a number is, as far as its digits tell. */
export const PHONE_KINDS = ['mobile', 'landline', 'toll-free', 'unknown'] as const
export type PhoneKind = typeof PHONE_KINDS[number]

/** Why what somebody typed is no number that can be used. */
export const UNUSABLE_REASONS = [
  'empty',
  'not-a-number',
  'several-numbers',
  'needs-country',
  'unknown-country-code',
  'too-short',
  'too-long',
  'not-assigned',
] as const
export type UnusableReason = typeof UNUSABLE_REASONS[number]
