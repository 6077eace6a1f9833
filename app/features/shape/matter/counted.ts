/** "1 hit", "2 hits". */
export const counted = (number: number, what: string): string => `${number} ${what}${number === 1 ? '' : 's'}`
