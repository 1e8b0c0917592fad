'use client';

import { Button, ButtonGroup } from '@mui/material';
import { useRouter } from 'next/navigation';
import { MODES } from '@melto/core/measured/columns';
import { SAY_AIM_MODE } from '@/endpoints/conformity';
import { send } from '@/ui/api';
import { useSending } from '@/ui/useSending';

/** Aims that do not tell their mode: nothing conforms to them in so many words until a person says it. */
export function SayMode({ id }: { id: number }) {
  const router = useRouter();
  const { sending, problem, run } = useSending();
  return (
    <div className="notice" role="group" aria-label="Mode of these aims">
      <p className="small">
        Their data do not tell in which mode they were measured. Until someone says it, a check against them
        gets no plain <em>conforms</em>. Your word becomes their next version.
      </p>
      <div className="row">
        <ButtonGroup size="small">
          {MODES.map((mode) => (
            <Button
              key={mode}
              disabled={sending}
              onClick={() =>
                void run(async () => {
                  const made = await send(SAY_AIM_MODE, { params: { id }, body: { mode } });
                  router.replace(`/library/aims?set=${made.id}`);
                })
              }
            >
              {mode}
            </Button>
          ))}
        </ButtonGroup>
        {problem !== undefined && (
          <span className="error" role="alert">
            {problem}
          </span>
        )}
      </div>
    </div>
  );
}
