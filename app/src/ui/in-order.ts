/** In which order names are shown: by letters as people order them here, and “2” before “10”. */
export const inOrder = new Intl.Collator(undefined, { numeric: true }).compare;
