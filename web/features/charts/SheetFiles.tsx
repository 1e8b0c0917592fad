/** The files of a sheet. A job's picture carries its profile, in a PDF as well. */
export function SheetFiles({
  code,
  job = null,
  sent = false,
}: {
  code: string;
  /** What a job's picture has values of. */
  job?: string | null;
  sent?: boolean;
}) {
  const formats: readonly (readonly [format: string, name: string])[] = [
    ['pdf', 'PDF'],
    ['tiff', 'TIFF'],
    ...(job === 'RGB' ? [['png', 'PNG'] as const] : []),
    ...(sent ? [['txt', 'CGATS'] as const] : []),
  ];
  return (
    <>
      {formats.map(([format, name], i) => (
        <span key={format}>
          {i > 0 && ' '}
          <a href={`/api/sheets/${code}/file?format=${format}`}>{name}</a>
        </span>
      ))}
    </>
  );
}
