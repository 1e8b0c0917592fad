/** The entry of that name; throws where there is none. */
export function named<T extends { readonly name: string }>(list: readonly T[], name: string): T {
  const found = list.find((entry) => entry.name === name);
  if (found === undefined) throw new Error(`nothing is named ${name}`);
  return found;
}
