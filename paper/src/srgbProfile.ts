import sharp from 'sharp';

let profile: Promise<Uint8Array> | undefined;

/** The ICC profile of sRGB that tagged pictures carry. */
export function srgbProfile(): Promise<Uint8Array> {
  profile ??= readProfile();
  return profile;
}

async function readProfile(): Promise<Uint8Array> {
  const dot = { create: { width: 1, height: 1, channels: 3, background: '#fff' } } as const;
  const png = await sharp(dot).withIccProfile('srgb').png().toBuffer();
  const { icc } = await sharp(png).metadata();
  if (icc === undefined) throw new Error('the image library has no profile of sRGB');
  return icc;
}
