/** The status shapes of screens, reports and slips; each survives a black-and-white printer. */
export type StatusName = 'conforms' | 'near' | 'does-not-conform' | 'not-judged';

export const STATUS_WORDS: Readonly<Record<StatusName, string>> = {
  conforms: 'conforms',
  near: 'conforms, near the limit',
  'does-not-conform': 'does not conform',
  'not-judged': 'not judged',
};

/** Inline SVG of a status, 14 px. */
export function statusSvg(status: StatusName): string {
  const body = {
    conforms: '<circle cx="7" cy="7" r="6" fill="#1F5F73"/>',
    near: '<circle cx="7" cy="7" r="5.2" fill="none" stroke="#9A6B00" stroke-width="1.6"/><path d="M7 1.8a5.2 5.2 0 0 0 0 10.4z" fill="#9A6B00"/>',
    'does-not-conform':
      '<path d="M7 1.2 12.8 7 7 12.8 1.2 7z" fill="none" stroke="#B3361B" stroke-width="2.2"/>',
    'not-judged':
      '<circle cx="7" cy="7" r="5.4" fill="none" stroke="#5C5C5C" stroke-width="1.4" stroke-dasharray="1 2.2"/>',
  }[status];
  return `<svg width="14" height="14" viewBox="0 0 14 14" aria-hidden="true">${body}</svg>`;
}
