/** What a link's small picture is drawn from. */
export type SpinePicture =
  | { readonly kind: 'bars'; readonly limits: readonly number[]; readonly colours: readonly string[] }
  | {
      readonly kind: 'curves';
      readonly curves: readonly (readonly number[])[];
      readonly colours: readonly string[];
    }
  | { readonly kind: 'track'; readonly greys: readonly (readonly [number, number])[] }
  | { readonly kind: 'outline'; readonly points: readonly (readonly [number, number])[] }
  | { readonly kind: 'dots'; readonly differences: readonly number[]; readonly limit: number }
  | { readonly kind: 'spark'; readonly values: readonly number[]; readonly limit: number };
