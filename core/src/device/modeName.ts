/** Print mode of a condition, with the name that tells it from others of the same device, stock and mode. */
export function modeName({ mode, label }: { readonly mode: string; readonly label: string }): string {
  return label === '' ? mode : `${mode}, ${label}`;
}
