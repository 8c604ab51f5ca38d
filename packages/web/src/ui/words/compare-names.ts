/** For sorting as one reads: `bee10` stands after `bee9`. */
export const { compare: compareNames } = new Intl.Collator('en', { numeric: true });
