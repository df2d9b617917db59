/** Made once: to compare by numbers with a new one each time takes a part of every picture. */
const { compare } = new Intl.Collator('en', { numeric: true });

/** Order of parts as they stand on a panel: S2 before S10. */
export const byTag = (x: { readonly tag: string }, y: { readonly tag: string }): number =>
  compare(x.tag, y.tag);
