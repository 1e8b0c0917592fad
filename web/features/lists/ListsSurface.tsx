'use client';

import { Button } from '@mui/material';
import { useQueryClient } from '@tanstack/react-query';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { ColourListDetail } from '@melto/services/lists/colourLists';
import type { ColourListRow } from '@melto/services/lists/colourLists';
import { CHANGE_COLOUR_LIST, REMOVE_COLOUR_LIST, TAKE_COLOUR_LIST } from '@/endpoints/lists';
import { NameDialog } from '@/features/library/NameDialog';
import { usePutAway } from '@/features/library/usePutAway';
import { send } from '@/ui/api';
import { FileButton } from '@/ui/FileButton';
import { Link } from '@/ui/Link';
import { May } from '@/ui/May';
import { useFileDrop } from '@/ui/useFileDrop';
import { useSending } from '@/ui/useSending';
import { ListFacts } from './ListFacts';

const FILES = '.cxf,.xml,.txt,.cgats,.it8,.csv';

/** The colour lists of the house: brand colours, spot colours, references. */
export function ListsSurface({
  lists,
  shown,
}: {
  lists: readonly ColourListRow[];
  shown: ColourListDetail | undefined;
}) {
  const router = useRouter();
  const queries = useQueryClient();
  const put = usePutAway();
  const { sending, problem, run } = useSending();
  const [naming, setNaming] = useState(false);
  const refresh = async (to?: string): Promise<void> => {
    if (to !== undefined) router.replace(to);
    router.refresh();
    await queries.invalidateQueries({ queryKey: ['colour lists'] });
  };
  const take = (file: File | undefined, versionOf?: ColourListRow): void => {
    if (file === undefined) return;
    void run(async () => {
      const name = versionOf?.name ?? file.name.replace(/\.[A-Za-z0-9]{1,5}$/, '').slice(0, 120);
      const query = { name, file: file.name.slice(0, 200), versionOf: versionOf?.id };
      const { id } = await send(TAKE_COLOUR_LIST, { query, body: file });
      await refresh(`/library/lists?set=${id}`);
    });
  };
  const { over, zone } = useFileDrop((file) => take(file));
  const latest = shown?.versions[0];
  const remove = (list: ColourListRow): Promise<void> =>
    put(async (removed) => {
      await send(REMOVE_COLOUR_LIST, { params: { id: list.id }, body: { removed } });
      await refresh(removed ? '/library/lists' : `/library/lists?set=${list.id}`);
    }, `${list.name} is off the list; what was made of it keeps its colours.`);
  return (
    <section className="surface" {...zone} style={over ? { outline: '2px solid var(--text)' } : undefined}>
      <div className="surface-head">
        <h1>Colour lists</h1>
        <p className="quiet">
          Named colours that must match: of brands, of samples, of spot inks. Drop a list here: CxF, CGATS, or
          CSV with name, L, a, b.
        </p>
        {latest !== undefined && latest.removedMs === null && (
          <>
            <May act={REMOVE_COLOUR_LIST}>
              <Button onClick={() => void remove(latest)}>Remove</Button>
              <Button onClick={() => setNaming(true)}>Name it</Button>
              <FileButton
                label="New version"
                size="medium"
                accept={FILES}
                disabled={sending}
                onFile={(file) => take(file, latest)}
              />
            </May>
          </>
        )}
        <May act={TAKE_COLOUR_LIST}>
          <FileButton
            label="Take a list"
            size="medium"
            accept={FILES}
            disabled={sending}
            onFile={(file) => take(file)}
          />
        </May>
      </div>
      {problem !== undefined && (
        <p className="error" role="alert">
          {problem}
        </p>
      )}
      {shown === undefined ? (
        <p className="quiet">
          The house has no list yet. Take one, or <Link href="/measure">measure colours into one</Link>.
        </p>
      ) : (
        <div className="tolerance-columns">
          <nav className="panel" aria-label="Colour lists">
            {lists.map(({ id, family, name, count, version }) => (
              <Link
                key={id}
                href={`/library/lists?set=${id}`}
                className="pick-link"
                aria-current={family === shown.family ? 'true' : undefined}
              >
                {name}
                <span className="quiet small">
                  {count} {count === 1 ? 'colour' : 'colours'}
                  {version > 1 ? `, version ${version}` : ''}
                </span>
              </Link>
            ))}
          </nav>
          <ListFacts key={shown.id} list={shown} />
        </div>
      )}
      {naming && latest !== undefined && (
        <NameDialog
          item={latest}
          nameHelp="As people call it: the brand, the set of samples"
          noteHelp="Who gave it, how it was measured, what it is for"
          mostName={120}
          onClose={() => setNaming(false)}
          onKeep={async (body) => {
            await send(CHANGE_COLOUR_LIST, {
              params: { id: latest.id },
              body: { ...body, tolerance: latest.tolerance },
            });
            await refresh();
          }}
        />
      )}
    </section>
  );
}
