import { expose, transfer } from 'comlink';
import { labRowsToLinearScreen } from '@melto/core/colour/srgb';
import { compareSeen, seeBodies } from '@melto/core/gamut/compareBodies';
import type { BodyComparison, SeenBodies, SeenBody } from '@melto/core/gamut/compareBodies';
import {
  bodyFrom,
  bodyVolume,
  commonGrey,
  hueSlice,
  lightnessSlice,
  sharedVolume,
} from '@melto/core/gamut/gamutBody';
import { bodyMesh } from '@melto/core/gamut/bodyMesh';
import { comparisonSentences, hueName } from '@melto/core/gamut/gamutWords';
import { madeWords } from '@melto/core/gamut/madeBody';
import type { MadeBody } from '@melto/core/gamut/madeBody';
import { measuredBody } from '@melto/core/gamut/measuredBody';
import { profileBody } from '@melto/core/gamut/profileBody';
import type { RadialBoundary } from '@melto/core/gamut/radialBoundary';
import { reachBeyond } from '@melto/core/gamut/reach';
import { deviceToLab } from '@melto/core/icc/profileTransform';
import { isIcc, readIcc } from '@melto/core/icc/readIcc';
import { readPatchSet } from '@melto/core/cgats/patchSetFromCgats';
import { pictureColours } from '@melto/core/proof/pictureColours';
import type { NamedColour } from '@melto/core/refine/namedColour';
import { issueText } from '@melto/core/result';
import type { Result } from '@melto/core/result';
import { transformed } from '@melto/core/transform/transform';

/** What is drawn of a body as lines. */
export interface DrawnOutline {
  readonly name: string;
  /** What it was made by, in words. */
  readonly madeBy: string;
  readonly volume: number;
  /** What it shares with the solid one. */
  readonly shared: number;
  readonly lab: Float32Array;
}

/** What is drawn of one of two bodies. */
export interface DrawnBody extends DrawnOutline {
  readonly corners: Uint32Array;
  /** Linear light of the screen for each corner: its own colour. */
  readonly colours: Float32Array;
}

export interface DrawnComparison {
  readonly a: DrawnBody;
  readonly b: DrawnBody;
  /** Bodies beside the two. */
  readonly more: readonly DrawnOutline[];
}

/** How far two bodies reach beyond each other. */
export interface DrawnReach {
  /** ΔE00 of the second beyond the first, for each corner. */
  readonly beyond: Float32Array;
  readonly shares: BodyComparison['shares'];
  readonly sentences: readonly string[];
}

type Line = ReturnType<typeof hueSlice>;

/** A body cut along a hue: its own side and the opposite one. */
export interface HueCut {
  readonly near: Line;
  readonly far: Line;
}

/** Cuts of the two bodies that are compared, and of those beside them. */
export interface Cuts<Cut> {
  readonly a: Cut;
  readonly b: Cut;
  readonly more: readonly Cut[];
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

const bodies = new Map<string, MadeBody>();
let seen: SeenBodies | undefined;
let beside: readonly RadialBoundary[] = [];

/** The body of a profile, or of patches that are told with their device values. */
function bodyOf(bytes: Uint8Array, name: string): Result<MadeBody> {
  if (isIcc(bytes)) {
    const profile = readIcc(bytes);
    return profile.ok ? profileBody(profile.value, name) : profile;
  }
  const set = readPatchSet(new TextDecoder().decode(bytes));
  return set.ok ? measuredBody(set.value, name) : set;
}

/** A body beside the solid one; a sentence where both share no lightness. */
function outlineOf(
  { body, ...made }: MadeBody,
  solid: MadeBody,
): { readonly drawn: DrawnOutline; readonly boundary: RadialBoundary } | string {
  const grey = commonGrey([body, solid.body]);
  if (grey === undefined) return `${body.name} and ${solid.body.name} share no lightness.`;
  const boundary = bodyFrom(body, grey);
  return {
    drawn: {
      ...{ name: body.name, madeBy: madeWords(made), volume: bodyVolume(boundary) },
      shared: sharedVolume(boundary, bodyFrom(solid.body, grey)),
      lab: bodyMesh(boundary).lab,
    },
    boundary,
  };
}

function cutAll<Cut>(cut: (boundary: RadialBoundary) => Cut): Cuts<Cut> | undefined {
  if (seen === undefined) return undefined;
  return { a: cut(seen.a.boundary), b: cut(seen.b.boundary), more: beside.map(cut) };
}

const api = {
  /** Keeps the body of a profile, a reading or an aim set under a key; says in words why there is none. */
  load(key: string, name: string, bytes: Uint8Array): string | undefined {
    if (bodies.has(key)) return undefined;
    const body = bodyOf(bytes, name);
    if (!body.ok) return `${name}: ${body.issues.map(issueText).join('; ')}`;
    bodies.set(key, body.value);
    return undefined;
  },
  /** Whether a text tells device values, so that a body can be made from it. */
  hasDeviceValues(text: string): boolean {
    const set = readPatchSet(text);
    return set.ok && set.value.device !== undefined;
  },
  /** Two bodies as they are drawn, and some beside them with the second. */
  draw(a: string, b: string, others: readonly string[] = []): DrawnComparison | string {
    const [first, second] = [bodies.get(a), bodies.get(b)];
    if (first === undefined || second === undefined) return 'A body is not made yet.';
    const outlines = others.flatMap((key) => bodies.get(key) ?? []).map((own) => outlineOf(own, second));
    const apart = outlines.find((own) => typeof own === 'string');
    if (apart !== undefined) return apart;
    const result = seeBodies(first.body, second.body);
    if (!result.ok) return result.issues.map(issueText).join('; ');
    seen = result.value;
    const more = outlines.filter((own) => typeof own !== 'string');
    beside = more.map(({ boundary }) => boundary);
    const { shared } = seen;
    const drawn = (own: SeenBody, of: MadeBody): DrawnBody => ({
      ...{ name: own.name, madeBy: madeWords(of), volume: own.volume, shared, lab: own.mesh.lab },
      corners: own.mesh.corners,
      colours: labRowsToLinearScreen(own.mesh.lab),
    });
    const answer: DrawnComparison = {
      a: drawn(seen.a, first),
      b: drawn(seen.b, second),
      more: more.map((own) => own.drawn),
    };
    return transfer(answer, [answer.a.colours.buffer, answer.b.colours.buffer]);
  },
  /** How far the bodies that were drawn last reach beyond each other. */
  reach(): DrawnReach | undefined {
    if (seen === undefined) return undefined;
    const compared = compareSeen(seen);
    const { beyond } = compared.b;
    return transfer({ beyond, shares: compared.shares, sentences: comparisonSentences(compared) }, [
      beyond.buffer,
    ]);
  },
  /** Largest chroma of all at a lightness, by azimuth. */
  slice(l: number): Cuts<Float64Array> | undefined {
    return cutAll((boundary) => lightnessSlice(boundary, l));
  },
  /** All at a hue and its opposite: L* and chroma along the surface, from black to white. */
  hue(degrees: number): Cuts<HueCut> | undefined {
    return cutAll((boundary) => ({
      near: hueSlice(boundary, degrees),
      far: hueSlice(boundary, degrees + 180),
    }));
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
  /** How far colours lie beyond the bodies that were drawn last. */
  points(lab: Float32Array): DrawnPoints | undefined {
    if (seen === undefined) return undefined;
    return {
      ...{ lab, colours: labRowsToLinearScreen(lab) },
      beyondA: reachBeyond(lab, seen.a.boundary),
      beyondB: reachBeyond(lab, seen.b.boundary),
    };
  },
};

export type GamutWorker = typeof api;

expose(api);
