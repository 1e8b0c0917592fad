'use client';

import { Button } from '@mui/material';
import { useRouter } from 'next/navigation';
import type { PictureRow } from '@melto/services/house/pictures';
import { ADD_PICTURE, REMOVE_PICTURE } from '@/endpoints/conditions';
import { usePutAway } from '@/features/library/usePutAway';
import { send } from '@/ui/api';
import { FileButton, PICTURE_FILES } from '@/ui/FileButton';
import { formatDay } from '@/ui/format';
import { May } from '@/ui/May';
import { useSending } from '@/ui/useSending';

/** Pictures of the driver's dialogs, for whoever has to set them the same way. */
export function SettingsPictures({
  conditionId,
  pictures,
}: {
  conditionId: number;
  pictures: readonly PictureRow[];
}) {
  const router = useRouter();
  const put = usePutAway();
  const { sending, problem, run } = useSending();
  const add = (file: File): Promise<void> =>
    run(async () => {
      await send(ADD_PICTURE, {
        params: { id: conditionId },
        query: { name: file.name.slice(0, 200) },
        body: file,
      });
      router.refresh();
    });
  return (
    <div className="panel">
      <header>
        <h2>Pictures of the driver’s dialogs</h2>
        <span className="quiet grow">
          {pictures.length === 0 ? 'A picture says more of a dialog than its points do.' : ''}
        </span>
        <May act={ADD_PICTURE}>
          <FileButton
            label="Add a picture"
            accept={PICTURE_FILES}
            disabled={sending}
            onFile={(file) => void add(file)}
          />
        </May>
      </header>
      {problem !== undefined && (
        <p className="error" role="alert">
          {problem}
        </p>
      )}
      <div style={{ display: 'flex', flexWrap: 'wrap', gap: 16 }}>
        {pictures.map(({ id, name, madeMs }) => (
          <figure key={id} style={{ margin: 0, width: 220 }}>
            <a href={`/api/pictures/${id}/file`} target="_blank" rel="noreferrer">
              <img
                src={`/api/pictures/${id}/file`}
                alt={name}
                style={{ width: '100%', height: 140, objectFit: 'contain', background: 'var(--page)' }}
              />
            </a>
            <figcaption className="row small" style={{ gap: 6 }}>
              <span className="grow" style={{ overflow: 'hidden', textOverflow: 'ellipsis' }}>
                {name} <span className="quiet">{formatDay(madeMs)}</span>
              </span>
              <May act={REMOVE_PICTURE}>
                <Button
                  size="small"
                  variant="text"
                  aria-label={`Remove ${name}`}
                  onClick={() =>
                    void put(
                      (removed) => send(REMOVE_PICTURE, { params: { id }, body: { removed } }),
                      `${name} is removed.`,
                    )
                  }
                >
                  Remove
                </Button>
              </May>
            </figcaption>
          </figure>
        ))}
      </div>
    </div>
  );
}
