'use client';

import { Button } from '@mui/material';
import { useQueryClient } from '@tanstack/react-query';
import { Link } from '@/ui/Link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { ViewingLight } from '@melto/services/light/viewingLights';
import { CHANGE_LIGHT, PUT_LIGHT_AWAY, TAKE_LIGHTS } from '@/endpoints/light';
import { NameDialog } from '@/features/library/NameDialog';
import { usePutAway } from '@/features/library/usePutAway';
import { send } from '@/ui/api';
import { FileButton } from '@/ui/FileButton';
import { May } from '@/ui/May';
import { useFileDrop } from '@/ui/useFileDrop';
import { useSending } from '@/ui/useSending';
import { LightFacts } from './LightFacts';
import { generalFigure } from './lightWords';
import { shortName } from './useLights';

const FILES = '.txt,.csv,.tsv,.cgats,.cxf,.xml';

/** Lights that prints of the house are seen in. */
export function LightsSurface({
  lights,
  shown,
}: {
  lights: readonly ViewingLight[];
  shown: string | undefined;
}) {
  const router = useRouter();
  const queries = useQueryClient();
  const put = usePutAway();
  const { sending, problem, run } = useSending();
  const [naming, setNaming] = useState(false);
  const light = lights.find(({ key }) => key === shown) ?? lights[0];
  const refresh = async (): Promise<void> => {
    router.refresh();
    await queries.invalidateQueries({ queryKey: ['lights'] });
  };
  const take = (file: File | undefined): void => {
    if (file === undefined) return;
    void run(async () => {
      const { taken } = await send(TAKE_LIGHTS, { query: { name: file.name.slice(0, 200) }, body: file });
      router.replace(`/library/lights?light=own-${taken[0].id}`);
      await refresh();
    });
  };
  const { over, zone } = useFileDrop(take);
  const { id } = light;
  return (
    <section className="surface" {...zone} style={over ? { outline: '2px solid var(--text)' } : undefined}>
      <div className="surface-head">
        <h1>Lights</h1>
        <p className="quiet">
          What prints are seen in. A light that was measured where they hang can have profiles of its own.
        </p>
        {id !== null && (
          <May act={PUT_LIGHT_AWAY}>
            <Button
              onClick={() =>
                void put(
                  async (away) => {
                    await send(PUT_LIGHT_AWAY, { params: { id }, body: { away } });
                    await refresh();
                  },
                  light.away ? undefined : `${light.name} is put away; what was made for it keeps it.`,
                )
              }
            >
              {light.away ? 'Take out' : 'Put away'}
            </Button>
            <Button onClick={() => setNaming(true)}>Name it</Button>
          </May>
        )}
        <May act={TAKE_LIGHTS}>
          <FileButton
            label="Take a measured light"
            size="medium"
            accept={FILES}
            disabled={sending}
            onFile={take}
          />
        </May>
      </div>
      {problem !== undefined && (
        <p className="error" role="alert">
          {problem}
        </p>
      )}
      <div className="tolerance-columns">
        <nav className="panel" aria-label="Lights">
          {lights.map((own) => (
            <Link
              key={own.key}
              href={`/library/lights?light=${own.key}`}
              className="pick-link"
              aria-current={own.key === light.key ? 'true' : undefined}
            >
              <span className={own.away ? 'quiet' : undefined}>{shortName(own)}</span>
              <span className="quiet small">{wordsOf(own)}</span>
            </Link>
          ))}
        </nav>
        <div className="panel" style={{ display: 'grid', gap: 12, gridTemplateColumns: 'minmax(0, 1fr)' }}>
          <header>
            <h2>{light.name}</h2>
          </header>
          <LightFacts light={light} daylight={lights[0]} />
        </div>
      </div>
      {naming && id !== null && (
        <NameDialog
          item={light}
          nameHelp="As people call the place: the gallery, the shop window"
          noteHelp="The lamps, where and when it was measured"
          mostName={80}
          onClose={() => setNaming(false)}
          onKeep={async (body) => {
            await send(CHANGE_LIGHT, { params: { id }, body });
            await refresh();
          }}
        />
      )}
    </section>
  );
}

function wordsOf({ id, away, figures: { temperature, rendering } }: ViewingLight): string {
  const like = [
    temperature === null ? 'no white' : `${temperature.kelvin.toFixed(0)} K`,
    rendering === null ? '' : `Ra ${generalFigure(rendering.general)}`,
  ];
  return [...like, id === null ? '' : away ? 'put away' : 'of the house']
    .filter((word) => word !== '')
    .join(', ');
}
