/** A number with its country code, as ITU-T E.164 has it: at most 15 digits. Anything else can be shown, and neither texted nor called. */
export const isE164 = (number: string): boolean => /^\+[1-9]\d{6,14}$/.test(number)
