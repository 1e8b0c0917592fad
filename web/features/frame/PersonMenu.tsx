'use client';

import { Button, Divider, Menu, MenuItem } from '@mui/material';
import { useColorScheme } from '@mui/material/styles';
import { Link } from '@/ui/Link';
import { useState } from 'react';
import { mayDo } from '@melto/core/people/role';
import { LEAVE_DESK, SIGN_OUT } from '@/endpoints/people';
import { DeskCodeDialog, MakeDeskDialog, TakeDeskDialog } from '@/features/people/DeskDialogs';
import { hasPasskeys } from '@/features/people/devicePasskeys';
import { PasskeysDialog } from '@/features/people/PasskeysDialog';
import { PassphraseDialog } from '@/features/people/PassphraseDialog';
import { send } from '@/ui/api';
import { useHouse } from './useHouse';

/** Who works here: what they are, their theme and passphrase, and the way out. */
export function PersonMenu() {
  const { data } = useHouse();
  const { mode, setMode } = useColorScheme();
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const [open, setOpen] = useState<'passphrase' | 'passkeys' | 'code' | 'make' | 'take'>();
  const desk = data?.desk ?? undefined;
  const signedIn = data?.how === 'session' && desk === undefined;
  const leave = async (everywhere: boolean): Promise<void> => {
    await send(SIGN_OUT, { body: { everywhere } });
    window.location.assign('/sign-in');
  };
  const leaveDesk = async (): Promise<void> => {
    await send(LEAVE_DESK, {});
    window.location.reload();
  };
  const close = (): void => setAnchor(null);
  const pick = (dialog: typeof open): void => {
    setOpen(dialog);
    close();
  };
  return (
    <>
      <Button
        variant="text"
        size="small"
        aria-haspopup="menu"
        onClick={(event) => setAnchor(event.currentTarget)}
        sx={{ fontSize: 13, fontWeight: 400, px: 1 }}
      >
        {desk?.taken === false ? `${desk.name} · nobody` : (data?.person.split(' ')[0] ?? 'Person')}
      </Button>
      <Menu anchorEl={anchor} open={anchor !== null} onClose={close}>
        {data !== undefined && (
          <li className="person-words">
            <b>{desk?.taken === false ? desk.name : data.person}</b>
            <div className="quiet small">
              {data.how === 'sample'
                ? 'The sample house signs in by itself, on its own machine only.'
                : desk === undefined
                  ? data.role
                  : desk.taken
                    ? `${data.role} at ${desk.name}`
                    : 'Nobody works at this desk: it shows only.'}
            </div>
          </li>
        )}
        <Divider component="li" />
        <MenuItem
          onClick={() => {
            setMode(mode === 'dark' ? 'light' : 'dark');
            close();
          }}
        >
          {mode === 'dark' ? 'Light theme' : 'Dark theme'}
        </MenuItem>
        {data?.role === 'keeper' && (
          <MenuItem component={Link} href="/library/people" onClick={close}>
            People
          </MenuItem>
        )}
        {data?.how === 'sample' && (
          <MenuItem component="a" href="/sign-in">
            Sign in as somebody
          </MenuItem>
        )}
        {desk !== undefined && <MenuItem onClick={() => pick('take')}>Take over</MenuItem>}
        {desk?.taken === true && <MenuItem onClick={() => void leaveDesk()}>Leave the desk</MenuItem>}
        {signedIn && <MenuItem onClick={() => pick('passphrase')}>Change passphrase</MenuItem>}
        {signedIn && hasPasskeys() && <MenuItem onClick={() => pick('passkeys')}>Passkeys</MenuItem>}
        {signedIn && mayDo(data.role, 'operator') && (
          <MenuItem onClick={() => pick('code')}>Code for desks</MenuItem>
        )}
        {signedIn && mayDo(data.role, 'specialist') && (
          <MenuItem onClick={() => pick('make')}>Make this browser a desk</MenuItem>
        )}
        {signedIn && <MenuItem onClick={() => void leave(false)}>Sign out</MenuItem>}
        {signedIn && <MenuItem onClick={() => void leave(true)}>Sign out everywhere</MenuItem>}
      </Menu>
      {open === 'passphrase' && <PassphraseDialog onClose={() => setOpen(undefined)} />}
      {open === 'passkeys' && <PasskeysDialog onClose={() => setOpen(undefined)} />}
      {open === 'code' && <DeskCodeDialog onClose={() => setOpen(undefined)} />}
      {open === 'make' && <MakeDeskDialog onClose={() => setOpen(undefined)} />}
      {open === 'take' && desk !== undefined && (
        <TakeDeskDialog desk={desk.name} onClose={() => setOpen(undefined)} />
      )}
    </>
  );
}
