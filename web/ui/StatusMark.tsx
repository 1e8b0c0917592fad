/** A state by shape, tone and word together. */
export type Status =
  | 'conforms'
  | 'near'
  | 'does-not-conform'
  | 'stale'
  | 'due'
  | 'none'
  | 'current'
  | 'not-judged';

export const STATUS_WORD: Readonly<Record<Status, string>> = {
  conforms: 'conforms',
  near: 'near the limit',
  'does-not-conform': 'does not conform',
  stale: 'stale',
  due: 'due',
  none: 'none yet',
  current: 'current',
  'not-judged': 'not judged',
};

export function StatusShape({ status, size = 14, title }: { status: Status; size?: number; title?: string }) {
  return (
    <svg
      width={size}
      height={size}
      viewBox="0 0 14 14"
      role={title === undefined ? undefined : 'img'}
      aria-label={title}
      aria-hidden={title === undefined}
      style={{ flex: 'none' }}
    >
      {shape(status)}
    </svg>
  );
}

function shape(status: Status) {
  switch (status) {
    case 'conforms':
    case 'current':
      return <circle cx="7" cy="7" r="6" fill="var(--conforms)" />;
    case 'near':
      return (
        <>
          <circle cx="7" cy="7" r="5.2" fill="none" stroke="var(--near)" strokeWidth="1.6" />
          <path d="M7 1.8a5.2 5.2 0 0 0 0 10.4z" fill="var(--near)" />
        </>
      );
    case 'does-not-conform':
      return <path d="M7 1.4 12.6 7 7 12.6 1.4 7z" fill="none" stroke="var(--fails)" strokeWidth="2.2" />;
    case 'stale':
      return (
        <circle
          cx="7"
          cy="7"
          r="5.3"
          fill="none"
          stroke="var(--text)"
          strokeWidth="1.4"
          strokeDasharray="3 2.2"
        />
      );
    case 'due':
      return <path d="M9.4 2.4a5.2 5.2 0 1 1-4.8 0" fill="none" stroke="var(--near)" strokeWidth="1.8" />;
    case 'none':
    case 'not-judged':
      return (
        <circle
          cx="7"
          cy="7"
          r="5.3"
          fill="none"
          stroke="var(--quiet)"
          strokeWidth="1.4"
          strokeDasharray="1 2.1"
        />
      );
  }
}

export function StatusMark({ status, word }: { status: Status; word?: string }) {
  return (
    <span className="status">
      <StatusShape status={status} />
      <span>{word ?? STATUS_WORD[status]}</span>
    </span>
  );
}
