const LOOPBACK = new Set(['127.0.0.1', 'localhost', '[::1]']);

/**
 * Whether a page of `origin` may talk to the instruments of this machine: any page could try. Programs have no origin;
 * pages of this machine may, others only where they were named.
 */
export function allowedOrigin(origin: string | undefined, named: readonly string[]): boolean {
  if (origin === undefined || named.includes(origin)) return true;
  try {
    return LOOPBACK.has(new URL(origin).hostname);
  } catch {
    return false;
  }
}
