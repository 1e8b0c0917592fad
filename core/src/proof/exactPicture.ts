/** Colours that are worked out at once. */
const BLOCK = 4096;

/**
 * Values of a picture through an exact conversion, each different colour once.
 * @param pixels row-major pixel × channels of 8 or 16 bits.
 * @param convert rows 0..1 to rows of `outputs` columns.
 * @returns row-major pixel × outputs.
 */
export function exactPicture(
  pixels: Uint8Array | Uint8ClampedArray | Uint16Array,
  channels: number,
  outputs: number,
  convert: (values: Float64Array) => Float64Array,
): Float32Array {
  const count = pixels.length / channels;
  const whole = pixels instanceof Uint16Array ? 65535 : 255;
  const { places, first } = differentColours(pixels, channels, count);
  const results = new Float32Array(first.length * outputs);
  for (let from = 0; from < first.length; from += BLOCK) {
    const to = Math.min(first.length, from + BLOCK);
    const values = new Float64Array((to - from) * channels);
    for (let i = from; i < to; i++)
      for (let c = 0; c < channels; c++)
        values[(i - from) * channels + c] = pixels[first[i] * channels + c] / whole;
    results.set(convert(values), from * outputs);
  }
  const out = new Float32Array(count * outputs);
  for (let pixel = 0; pixel < count; pixel++)
    for (let o = 0; o < outputs; o++) out[pixel * outputs + o] = results[places[pixel] * outputs + o];
  return out;
}

/** For each pixel the number of its colour, and a pixel of each colour. */
function differentColours(
  pixels: Uint8Array | Uint8ClampedArray | Uint16Array,
  channels: number,
  count: number,
): { readonly places: Uint32Array; readonly first: Uint32Array } {
  const places = new Uint32Array(count);
  let first = new Uint32Array(Math.min(count, 1 << 12));
  let colours = 0;
  let size = 1 << 14;
  let slots = new Int32Array(size).fill(-1);
  const hashOf = (at: number): number => {
    let hash = 0x811c9dc5;
    for (let c = 0; c < channels; c++) hash = Math.imul(hash ^ pixels[at + c], 0x01000193);
    return (hash ^ (hash >>> 15)) & (size - 1);
  };
  const slotOf = (at: number): number => {
    let slot = hashOf(at);
    while (slots[slot] >= 0 && !same(pixels, first[slots[slot]] * channels, at, channels))
      slot = (slot + 1) & (size - 1);
    return slot;
  };
  for (let pixel = 0; pixel < count; pixel++) {
    const at = pixel * channels;
    let slot = slotOf(at);
    if (slots[slot] < 0) {
      if (2 * colours >= size) {
        size *= 2;
        slots = new Int32Array(size).fill(-1);
        for (let own = 0; own < colours; own++) slots[slotOf(first[own] * channels)] = own;
        slot = slotOf(at);
      }
      if (colours === first.length) {
        const more = new Uint32Array(Math.min(count, 2 * first.length));
        more.set(first);
        first = more;
      }
      first[colours] = pixel;
      slots[slot] = colours++;
    }
    places[pixel] = slots[slot];
  }
  return { places, first: first.slice(0, colours) };
}

function same(pixels: ArrayLike<number>, a: number, b: number, channels: number): boolean {
  for (let c = 0; c < channels; c++) if (pixels[a + c] !== pixels[b + c]) return false;
  return true;
}
