import { expose, transfer } from 'comlink';
import { labRowsToLinearScreen } from '@melto/core/colour/srgb';
import { compareBodies } from '@melto/core/gamut/compareBodies';
import type { BodyComparison } from '@melto/core/gamut/compareBodies';
import { hueSlice, lightnessSlice } from '@melto/core/gamut/gamutBody';
import { comparisonSentences, hueName } from '@melto/core/gamut/gamutWords';
import { profileBody } from '@melto/core/gamut/profileBody';
import type { ProfileBody } from '@melto/core/gamut/profileBody';
import { reachBeyond } from '@melto/core/gamut/reach';
import { deviceToLab } from '@melto/core/icc/profileTransform';
import { readIcc } from '@melto/core/icc/readIcc';
import { pictureColours } from '@melto/core/proof/pictureColours';
import type { NamedColour } from '@melto/core/refine/namedColour';
import { issueText } from '@melto/core/result';
import { transformed } from '@melto/core/transform/transform';

/** What is drawn of one of two bodies. */
export interface DrawnBody {
  readonly name: string;
  readonly volume: number;
  readonly white: ProfileBody['white'];
  readonly totalInk?: number;
  readonly lab: Float32Array;
  readonly corners: Uint32Array;
  /** Linear light of the screen for each corner: its own colour. */
  readonly colours: Float32Array;
  /** ΔE00 beyond the other for each corner. */
  readonly beyond: Float32Array;
  readonly farthest?: { readonly lab: readonly [number, number, number]; readonly deltaE: number };
}

export interface DrawnComparison {
  readonly a: DrawnBody;
  readonly b: DrawnBody;
  readonly shared: number;
  readonly shares: BodyComparison['shares'];
  readonly sentences: readonly string[];
  readonly tookMs: number;
}

type Line = ReturnType<typeof hueSlice>;

/** A body cut along a hue: its own side and the opposite one. */
export interface HueCut {
  readonly near: Line;
  readonly far: Line;
}

/** Colours beside two bodies. */
export interface DrawnPoints {
  /** Lab, × 3. */
  readonly lab: Float32Array;
  /** Linear light of the screen, × 3. */
  readonly colours: Float32Array;
  /** ΔE00 beyond each of the two; 0 inside. */
  readonly beyondA: Float32Array;
  readonly beyondB: Float32Array;
}

/** Colours of a picture that are drawn. */
const PICTURE_COLOURS = 1500;

const bodies = new Map<string, ProfileBody>();
let compared: BodyComparison | undefined;

const api = {
  /** Keeps the body of a profile under a key; says in words why there is none. */
  load(key: string, name: string, bytes: Uint8Array): string | undefined {
    if (bodies.has(key)) return undefined;
    const profile = readIcc(bytes);
    if (!profile.ok) return `${name}: ${profile.issues.map(issueText).join('; ')}`;
    const body = profileBody(profile.value, name);
    if (!body.ok) return `${name}: ${body.issues.map(issueText).join('; ')}`;
    bodies.set(key, body.value);
    return undefined;
  },
  compare(a: string, b: string): DrawnComparison | string {
    const started = performance.now();
    const [first, second] = [bodies.get(a), bodies.get(b)];
    if (first === undefined || second === undefined) return 'A profile is not read yet.';
    const result = compareBodies(first.body, second.body);
    if (!result.ok) return result.issues.map(issueText).join('; ');
    compared = result.value;
    const drawn = (own: BodyComparison['a'], of: ProfileBody): DrawnBody => ({
      ...{ name: own.name, volume: own.volume, white: of.white, totalInk: of.totalInk },
      ...{ lab: own.mesh.lab, corners: own.mesh.corners, beyond: own.beyond, farthest: own.farthest },
      colours: labRowsToLinearScreen(own.mesh.lab),
    });
    const answer: DrawnComparison = {
      a: drawn(compared.a, first),
      b: drawn(compared.b, second),
      shared: compared.shared,
      shares: compared.shares,
      sentences: comparisonSentences(compared),
      tookMs: performance.now() - started,
    };
    return transfer(answer, [answer.a.colours.buffer, answer.b.colours.buffer]);
  },
  /** Largest chroma of both at a lightness, by azimuth. */
  slice(l: number): { readonly a: Float64Array; readonly b: Float64Array } | undefined {
    if (compared === undefined) return undefined;
    return { a: lightnessSlice(compared.a.boundary, l), b: lightnessSlice(compared.b.boundary, l) };
  },
  /** Both at a hue and its opposite: L* and chroma along the surface, from black to white. */
  hue(degrees: number): { readonly a: HueCut; readonly b: HueCut } | undefined {
    if (compared === undefined) return undefined;
    const cut = (body: BodyComparison['a']): HueCut => ({
      near: hueSlice(body.boundary, degrees),
      far: hueSlice(body.boundary, degrees + 180),
    });
    return { a: cut(compared.a), b: cut(compared.b) };
  },
  /** The colours that cover most of a picture, by the profile that it holds; a sentence where it cannot be used. */
  picture(
    name: string,
    values: Uint8Array,
    channels: number,
    icc: Uint8Array,
  ): readonly NamedColour[] | string {
    const profile = readIcc(icc);
    if (!profile.ok) return `${name}: ${profile.issues.map(issueText).join('; ')}`;
    const toLab = deviceToLab(profile.value, 'relative');
    if (!toLab.ok) return `${name}: ${toLab.issues.map(issueText).join('; ')}`;
    if (toLab.value.inputs !== channels)
      return `${name} has ${channels} channels, its profile is for ${toLab.value.inputs}.`;
    const { values: own, shares } = pictureColours(values, channels, PICTURE_COLOURS);
    const lab = transformed(toLab.value, own);
    return Array.from(shares, (share, i) => ({
      name: `${hueName(lab[3 * i + 1], lab[3 * i + 2])}, ${(100 * share).toFixed(1)} % of it`,
      lab: [lab[3 * i], lab[3 * i + 1], lab[3 * i + 2]] as const,
    }));
  },
  /** How far colours lie beyond the bodies that were compared last. */
  points(lab: Float32Array): DrawnPoints | undefined {
    if (compared === undefined) return undefined;
    return {
      ...{ lab, colours: labRowsToLinearScreen(lab) },
      beyondA: reachBeyond(lab, compared.a.boundary),
      beyondB: reachBeyond(lab, compared.b.boundary),
    };
  },
};

export type GamutWorker = typeof api;

expose(api);
