/** Where the air of the powder store is read: it is no part of the hall's. */
export const POWDER_STORE = "powder store";
