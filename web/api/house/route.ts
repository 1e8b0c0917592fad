import { house } from '@melto/services/house/house';
import { changeHouse } from '@melto/services/house/ownHouse';
import { CHANGE_HOUSE, HOUSE } from '@/endpoints/house';
import { roomLeft } from '@/server/room';
import { answering, changing } from '@/server/route';

export const GET = answering(HOUSE, async ({ context, caller }) => ({
  ...(await house(context)),
  bridge: process.env['MELTO_BRIDGE'] ?? '',
  role: caller?.role ?? 'viewer',
  how: caller?.how ?? 'session',
  desk: caller?.desk ?? null,
  roomMb: (await roomLeft()) ?? null,
}));

export const PUT = changing(CHANGE_HOUSE, async ({ context, body }) => {
  await changeHouse(context, body);
  return {};
});
