import type { PhoneKind, UnusableReason } from '~~/core/phone/read'

export const KIND_WORDS: Record<PhoneKind, string> = {
  'mobile': 'mobile',
  'landline': 'landline, calls only',
  'toll-free': 'toll-free, calls cost the caller nothing',
  'unknown': 'mobile or landline',
}

/** Why what was typed cannot be used, and what to do. */
export const UNUSABLE_WORDS: Record<UnusableReason | 'not-theirs', string> = {
  'not-theirs': 'It is somebody else’s, as was found on a call. Type it anew if that is wrong.',
  'empty': 'Nothing is typed yet.',
  'not-a-number': 'There are no digits that make a number. Kept as typed, not usable.',
  'several-numbers': 'That looks like two numbers. Give each its own line; kept as typed until then.',
  'needs-country': 'The country is missing. Begin with + and the country code; kept as typed until then.',
  'unknown-country-code': 'No country has this code. Check the digits behind the +; kept as typed.',
  'too-short': 'Digits are missing. Kept as typed, not usable until it is whole.',
  'too-long': 'There are too many digits. Kept as typed, not usable until it is right.',
  'not-assigned': 'No telephone can have this number. Check it; kept as typed, not usable.',
}
