/** Hands a file out that the browser saves. */
export function save(name: string, blob: Blob): void {
  const url = URL.createObjectURL(blob);
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  URL.revokeObjectURL(url);
}

/** A name that any file system takes, without the ending of a profile. */
export const plainName = (name: string): string => name.replace(/\.(icc|icm)$/i, '').replace(/[^\w-]+/g, '_');
