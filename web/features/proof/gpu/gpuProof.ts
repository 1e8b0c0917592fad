import type { BakedProof, Fineness, ProofOverlay } from '@melto/core/proof/bakedProof';
import { PROOF_COLUMNS } from '@melto/core/proof/softProof';
import type { ScreenSpace } from '@melto/core/proof/screen';
import { PROOF_OF_PIXEL, WHOLE_CANVAS } from './proofShaders';

/** Pixels with the values that a proof is baked for. */
export interface GpuPicture {
  readonly width: number;
  readonly height: number;
  readonly channels: number;
  readonly values: Uint8Array;
}

/** How a proof is drawn. */
export interface GpuDrawing {
  readonly baked: BakedProof;
  readonly overlay: ProofOverlay;
  /** Channels of the device, all of which in full are the most ink. */
  readonly inks: number;
  /** How finely it was worked out: a coarse one is drawn at half the size, since the next follows at once. */
  readonly fineness: Fineness;
}

/** A canvas that proofs of one picture are drawn on. */
export interface GpuProof {
  open(picture: GpuPicture): void;
  draw(drawing: GpuDrawing): void;
  close(): void;
}

const OVERLAYS: Readonly<Record<ProofOverlay, number>> = { none: 0, 'out of gamut': 1, ink: 2 };
/** Units of the textures. */
const PICTURE = 0;
const COLOURS = 1;
const INKS = 2;

/** Whether this browser draws on a GPU, or as one would. */
export function hasGpu(): boolean {
  const context = document.createElement('canvas').getContext('webgl2');
  context?.getExtension('WEBGL_lose_context')?.loseContext();
  return context !== null;
}

/** Makes a canvas one that proofs are drawn on; undefined where the browser cannot. */
export function gpuProof(canvas: HTMLCanvasElement, screen: ScreenSpace): GpuProof | undefined {
  const gl = canvas.getContext('webgl2', { alpha: false, antialias: false, depth: false });
  if (gl === null) return undefined;
  gl.drawingBufferColorSpace = screen;
  const program = programOf(gl);
  if (program === undefined) return undefined;
  gl.useProgram(program);
  const place = (name: string): WebGLUniformLocation | null => gl.getUniformLocation(program, name);
  gl.uniform1i(place('picture'), PICTURE);
  gl.uniform1i(place('colours'), COLOURS);
  gl.uniform1i(place('inks'), INKS);
  const places = {
    channels: place('channels'),
    stride: place('stride'),
    points: place('points'),
    overlay: place('overlay'),
    mostInk: place('mostInk'),
  };
  const textures = {
    picture: textureAt(gl, PICTURE, gl.TEXTURE_2D),
    colours: textureAt(gl, COLOURS, gl.TEXTURE_3D),
    inks: textureAt(gl, INKS, gl.TEXTURE_3D),
  };
  // Rows of three bytes a pixel end anywhere.
  gl.pixelStorei(gl.UNPACK_ALIGNMENT, 1);
  let held: BakedProof | undefined;
  let size = { width: 1, height: 1 };
  return {
    open({ width, height, channels, values }) {
      size = { width, height };
      gl.activeTexture(gl.TEXTURE0 + PICTURE);
      const [inner, format] = pictureFormat(gl, channels);
      gl.texImage2D(gl.TEXTURE_2D, 0, inner, width, height, 0, format, gl.UNSIGNED_BYTE, values);
    },
    draw({ baked, overlay, inks, fineness }) {
      const stride = fineness === 'coarse' ? 2 : 1;
      const [width, height] = [Math.ceil(size.width / stride), Math.ceil(size.height / stride)];
      if (canvas.width !== width || canvas.height !== height) {
        canvas.width = width;
        canvas.height = height;
        gl.viewport(0, 0, width, height);
      }
      if (baked !== held) upload(gl, baked);
      held = baked;
      gl.uniform1i(places.stride, stride);
      gl.uniform1i(places.channels, baked.channels);
      gl.uniform1i(places.points, baked.points);
      gl.uniform1i(places.overlay, OVERLAYS[overlay]);
      gl.uniform1f(places.mostInk, inks);
      gl.drawArrays(gl.TRIANGLES, 0, 3);
    },
    close() {
      for (const texture of Object.values(textures)) gl.deleteTexture(texture);
      gl.deleteProgram(program);
    },
  };
}

function pictureFormat(gl: WebGL2RenderingContext, channels: number): [inner: number, format: number] {
  if (channels === 1) return [gl.R8UI, gl.RED_INTEGER];
  if (channels === 3) return [gl.RGB8UI, gl.RGB_INTEGER];
  return [gl.RGBA8UI, gl.RGBA_INTEGER];
}

/** Brings a baked proof to its textures. */
function upload(gl: WebGL2RenderingContext, { channels, points, table }: BakedProof): void {
  const count = table.length / PROOF_COLUMNS;
  const colours = new Float32Array(4 * count);
  const inks = new Float32Array(count);
  for (let i = 0; i < count; i++) {
    const at = PROOF_COLUMNS * i;
    for (let c = 0; c < 4; c++) colours[4 * i + c] = table[at + c];
    inks[i] = table[at + 4];
  }
  const [width, height, depth] =
    channels === 1 ? [points, 1, 1] : [points, points, channels === 3 ? points : points * points];
  gl.activeTexture(gl.TEXTURE0 + COLOURS);
  gl.texImage3D(gl.TEXTURE_3D, 0, gl.RGBA32F, width, height, depth, 0, gl.RGBA, gl.FLOAT, colours);
  gl.activeTexture(gl.TEXTURE0 + INKS);
  gl.texImage3D(gl.TEXTURE_3D, 0, gl.R32F, width, height, depth, 0, gl.RED, gl.FLOAT, inks);
}

/** A texture whose texels are taken as they are. */
function textureAt(gl: WebGL2RenderingContext, unit: number, kind: number): WebGLTexture {
  const texture = gl.createTexture();
  gl.activeTexture(gl.TEXTURE0 + unit);
  gl.bindTexture(kind, texture);
  gl.texParameteri(kind, gl.TEXTURE_MIN_FILTER, gl.NEAREST);
  gl.texParameteri(kind, gl.TEXTURE_MAG_FILTER, gl.NEAREST);
  return texture;
}

function programOf(gl: WebGL2RenderingContext): WebGLProgram | undefined {
  const program = gl.createProgram();
  for (const [kind, text] of [
    [gl.VERTEX_SHADER, WHOLE_CANVAS],
    [gl.FRAGMENT_SHADER, PROOF_OF_PIXEL],
  ] as const) {
    const shader = gl.createShader(kind);
    if (shader === null) return undefined;
    gl.shaderSource(shader, text);
    gl.compileShader(shader);
    gl.attachShader(program, shader);
    gl.deleteShader(shader);
  }
  gl.linkProgram(program);
  return gl.getProgramParameter(program, gl.LINK_STATUS) === true ? program : undefined;
}
