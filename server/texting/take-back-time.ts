import { readHouseRules } from '../identity/house-rules'

/** For how long a text can be taken back, in milliseconds. */
export const takeBackMs = async (): Promise<number> => (await readHouseRules()).takeBackSeconds * 1_000
