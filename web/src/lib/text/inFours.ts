/** A bank account as it is printed: in groups of four. */
export const inFours = (account: string) => account.replace(/\s/g, '').replace(/(.{4})(?=.)/g, '$1 ');
