/** What a carrier takes for a text within a country. */
export interface TextPrice { microsPerPart: number, microsPerPicture: number | null }

/**
 * What a text will cost by its carrier's list, whole micro-units; with pictures it is one message, whatever its length.
 *
 * @returns null where no pictures go
 */
export const costOf = ({ microsPerPart, microsPerPicture }: TextPrice, parts: number, pictures: number): number | null =>
  pictures > 0 ? microsPerPicture : parts * microsPerPart
