'use client';

import { Button, Divider, Menu, MenuItem } from '@mui/material';
import { useColorScheme } from '@mui/material/styles';
import { Link } from '@/ui/Link';
import { useState } from 'react';
import { SIGN_OUT } from '@/endpoints/people';
import { PassphraseDialog } from '@/features/people/PassphraseDialog';
import { send } from '@/ui/api';
import { useHouse } from './useHouse';

/** Who works here: what they are, their theme and passphrase, and the way out. */
export function PersonMenu() {
  const { data } = useHouse();
  const { mode, setMode } = useColorScheme();
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const [changing, setChanging] = useState(false);
  const signedIn = data?.how === 'session';
  const leave = async (everywhere: boolean): Promise<void> => {
    await send(SIGN_OUT, { body: { everywhere } });
    window.location.assign('/sign-in');
  };
  const close = (): void => setAnchor(null);
  return (
    <>
      <Button
        variant="text"
        size="small"
        aria-haspopup="menu"
        onClick={(event) => setAnchor(event.currentTarget)}
        sx={{ fontSize: 13, fontWeight: 400, px: 1 }}
      >
        {data?.person.split(' ')[0] ?? 'Person'}
      </Button>
      <Menu anchorEl={anchor} open={anchor !== null} onClose={close}>
        {data !== undefined && (
          <li className="person-words">
            <b>{data.person}</b>
            <div className="quiet small">
              {data.how === 'sample'
                ? 'The sample house signs in by itself, on its own machine only.'
                : data.role}
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
        {signedIn && (
          <MenuItem
            onClick={() => {
              setChanging(true);
              close();
            }}
          >
            Change passphrase
          </MenuItem>
        )}
        {signedIn && <MenuItem onClick={() => void leave(false)}>Sign out</MenuItem>}
        {signedIn && <MenuItem onClick={() => void leave(true)}>Sign out everywhere</MenuItem>}
      </Menu>
      {changing && <PassphraseDialog onClose={() => setChanging(false)} />}
    </>
  );
}
