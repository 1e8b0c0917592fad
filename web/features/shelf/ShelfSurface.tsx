'use client';

import { KEEP_PROFILE, CHANGE_KEPT_PROFILE } from '@/endpoints/profile';
import { Button, TextField } from '@mui/material';
import { Link } from '@/ui/Link';
import { useMemo, useState } from 'react';
import type { ShelfProfile } from '@melto/services/profile/shelf';
import { fileSource, shelfSource } from '@/features/profiles/profileSource';
import type { ProfileSource } from '@/features/profiles/profileSource';
import { FileButton } from '@/ui/FileButton';
import { formatDay } from '@/ui/format';
import { May } from '@/ui/May';
import { useFileDrop } from '@/ui/useFileDrop';
import { Inspection } from './Inspection';
import { ChangeKept, KeepProfile, ORIGIN_WORDS } from './KeptProfile';

/** Every profile of the house, and any that is dropped here: where it is from, what it does, what is wrong with it. */
export function ShelfSurface({ shelf }: { shelf: readonly ShelfProfile[] }) {
  const [find, setFind] = useState('');
  const [files, setFiles] = useState<readonly ProfileSource[]>([]);
  const [chosen, setChosen] = useState(shelf[0]?.key ?? '');
  const sources = useMemo(() => [...files, ...shelf.map(shelfSource)], [shelf, files]);
  const rows = shelf.filter((own) => wordsOf(own).includes(find.trim().toLowerCase()));
  const take = (file: File | undefined): void => {
    if (file === undefined) return;
    const source = fileSource(file);
    setFiles((before) => [source, ...before.filter(({ key }) => key !== source.key)]);
    setChosen(source.key);
  };
  const { over, zone } = useFileDrop(take);
  const shown = shelf.find(({ key }) => key === chosen);
  const source = sources.find(({ key }) => key === chosen);
  return (
    <section className="surface gamut" data-over={over || undefined} {...zone}>
      <div className="surface-head">
        <h1>Profiles</h1>
        <p className="quiet">All that the house has; drop one here to look into it.</p>
        <FileButton label="Look into a file" accept=".icc,.icm" onFile={take} />
      </div>
      <div className="shelf-columns">
        <nav className="panel shelf-list" aria-label="Profiles">
          <TextField
            label="Find"
            value={find}
            onChange={(event) => setFind(event.target.value)}
            slotProps={{ htmlInput: { type: 'search' } }}
          />
          {files.map(({ key, label }) => (
            <Row
              key={key}
              current={key === chosen}
              onChoose={() => setChosen(key)}
              title={label}
              detail="a file, not kept"
            />
          ))}
          {rows.map((own) => (
            <Row
              key={own.key}
              current={own.key === chosen}
              onChoose={() => setChosen(own.key)}
              title={own.condition === null ? own.name : shelfSource(own).label}
              detail={detailOf(own)}
            />
          ))}
          {rows.length === 0 && <p className="quiet">No profile has this in its name.</p>}
        </nav>
        <div>
          {source === undefined ? (
            <p className="quiet">No profile yet. Build one on a condition, or drop one here.</p>
          ) : (
            <>
              <div className="panel">
                <header>
                  <h2>{shown?.name ?? source.label}</h2>
                  <span className="row">
                    {shown !== undefined && (
                      <>
                        <Button size="small" component={Link} href={`/gamut?b=${shown.key}`}>
                          Gamut
                        </Button>
                        <Button size="small" component={Link} href={`/proof?device=${shown.key}`}>
                          Soft proof
                        </Button>
                        <Button size="small" component="a" href={shown.file} download>
                          Download
                        </Button>
                        {shown.condition !== null && (
                          <Button
                            size="small"
                            component="a"
                            href={shown.file.replace(/file$/, 'package')}
                            download
                            title="With its curves, settings record, pictures, and where it goes"
                          >
                            Package
                          </Button>
                        )}
                      </>
                    )}
                  </span>
                </header>
                {shown !== undefined && <Standing own={shown} shelf={shelf} />}
                {shown?.kept != null && (
                  <May act={CHANGE_KEPT_PROFILE}>
                    <ChangeKept key={`${shown.key} ${shown.note}`} own={shown} />
                  </May>
                )}
                {source.file !== undefined && (
                  <May act={KEEP_PROFILE}>
                    <KeepProfile
                      key={source.key}
                      file={source.file}
                      onKept={(key) => {
                        setFiles((before) => before.filter((own) => own.key !== source.key));
                        setChosen(key);
                      }}
                    />
                  </May>
                )}
              </div>
              <Inspection source={source} sources={sources} />
            </>
          )}
        </div>
      </div>
    </section>
  );
}

function Row({
  current,
  title,
  detail,
  onChoose,
}: {
  current: boolean;
  title: string;
  detail: string;
  onChoose: () => void;
}) {
  return (
    <button type="button" className="plain pick-link" aria-current={current || undefined} onClick={onChoose}>
      {title}
      <span className="quiet small">{detail}</span>
    </button>
  );
}

/** On which condition it stands, and under which other names the same file does. */
function Standing({ own, shelf }: { own: ShelfProfile; shelf: readonly ShelfProfile[] }) {
  const { condition, digest, key, note, origin } = own;
  const same = shelf.filter((other) => other.digest === digest && other.key !== key);
  return (
    <>
      <p>
        {own.kept === null ? origin : 'kept'}
        {own.madeMs !== null && `, ${formatDay(own.madeMs)}`}
        {condition !== null && (
          <>
            , on{' '}
            <Link href={`/conditions/${condition.id}/profile`}>
              {condition.device} / {condition.stock} / {condition.mode}
            </Link>
            , version {condition.version}
            {condition.inForceOn === 0
              ? ', not in force'
              : condition.inForceOn === 1
                ? ', in force'
                : `, in force on ${condition.inForceOn} conditions`}
          </>
        )}
        .
      </p>
      {same.length > 0 && (
        <p className="notice">
          The same file stands here as {same.map((other) => shelfSource(other).label).join(', ')}.
        </p>
      )}
      {note !== '' && own.kept === null && <p className="quiet">{note}</p>}
    </>
  );
}

const detailOf = ({ origin, space, madeMs, kept }: ShelfProfile): string =>
  [
    space,
    kept === null ? origin : `kept, from ${ORIGIN_WORDS[kept.origin]}`,
    ...(madeMs === null ? [] : [formatDay(madeMs)]),
  ].join(', ');

const wordsOf = ({ name, origin, space, note, kept, condition }: ShelfProfile): string =>
  [name, origin, kept?.origin, space, note, condition?.device, condition?.stock, condition?.mode]
    .join(' ')
    .toLowerCase();
