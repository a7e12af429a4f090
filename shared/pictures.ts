/** What a picture may be when it leaves. */
export const PICTURE_TYPES = ['image/jpeg', 'image/png', 'image/gif'] as const
export type PictureType = typeof PICTURE_TYPES[number]

/** What may be put in: bytes of a file, and pixels once it is unpacked. */
export const MOST_BYTES_IN = 12_000_000
export const MOST_PIXELS = 40_000_000

/** Pictures are made to fit into this many bytes: what carriers pass on to each other (common practice). */
export const MOST_BYTES_OUT = 600_000

/** More than any carrier takes in one message. */
export const MOST_PICTURES = 10

export interface PictureFacts { id: string, width: number, height: number, size: number }
