import { deltaE2000 } from '@melto/core/colour/deltaE2000';
import type { Lab } from '@melto/core/colour/lab';
import { labAt } from '@melto/core/colour/labAt';
import { labToHex } from '@melto/core/colour/srgb';
import { WHITE_D50_MEASURED } from '@melto/core/colour/whitePoints';
import { labToXyz } from '@melto/core/colour/xyzToLab';
import type { MeasurementMode } from '@melto/core/device/instrument';
import type { ToldConditions } from '@melto/core/measured/conditions';
import type { StripRow } from '@melto/store/strips';
import { domainNow } from '../kernel/clock.ts';
import { unitOfWork } from '../kernel/context.ts';
import type { Context } from '../kernel/context.ts';
import { Problem } from '../kernel/problem.ts';
import { deskData, requirePatch, requireStrip, stripLab } from './deskData.ts';
import type { DeskData } from './deskData.ts';
import { expectedLab } from './expected.ts';
import { requireReader } from './requireReader.ts';
import { spectraOf } from './spectraOf.ts';
import { storeStrips } from './storeStrips.ts';
import type { StripsToStore } from './storeStrips.ts';

/** One patch: as an instrument measured it, or its L*, a*, b* (D50, 2°) as they were typed or sent. */
export interface PatchInput {
  /** Made by the client, so that a retried request is the same patch. */
  readonly attempt: string;
  /** Counted from 1. */
  readonly strip: number;
  readonly patch: number;
  readonly mode: MeasurementMode;
  readonly measured?: {
    readonly instrument: number;
    readonly startNm: number;
    readonly stepNm: number;
    /** Reflectance factors. */
    readonly spectrum: readonly number[];
  };
  readonly lab?: Lab;
  /** The person has been told that it looks like another patch, and keeps it. */
  readonly sure?: boolean;
}

export type PatchAnswer =
  | {
      readonly ok: true;
      readonly measured: string;
      /** ΔE00 from what the patch should give. */
      readonly off: number;
      readonly complete: boolean;
      readonly readingId: number;
    }
  | {
      readonly ok: false;
      readonly looksLike: { readonly strip: number; readonly patch: number };
      readonly words: string;
    };

/** How a colour that was typed was measured, as far as it is known. */
const TYPED: ToldConditions = { illuminant: 'D50', observer: 2 };
/** A patch that is so far from what it should give is compared with those beside it. */
const FAR = 12;
/** Another one is believed where it is so many times as near. */
const NEARER = 4;

/**
 * Stores one patch of a sheet beside what stands of its strip. One that looks like a patch beside it is told
 * and not kept, unless the person is sure.
 */
export async function storePatch(context: Context, code: string, input: PatchInput): Promise<PatchAnswer> {
  const data = await deskData(context, code);
  const { sheet, print, chart, condition } = data;
  const strips = chart.layout.pages[sheet.page - 1];
  requireStrip(code, input.strip, strips.length);
  const rows = strips[input.strip - 1];
  requirePatch(input.strip, input.patch, rows.length);
  const nowMs = await domainNow(context);
  const { values: own, ...form } = await patchForm(context, data, input);
  const strip: StripRow = {
    ...{ page: sheet.page, strip: input.strip, attempt: input.attempt, reversed: false, readMs: nowMs },
    ...{ kind: form.kind, grid: form.grid },
    values: new Float64Array(rows.length * own.length).fill(NaN),
  };
  strip.values.set(own, (input.patch - 1) * own.length);
  const lab = labAt(stripLab({ ...strip, values: own }), 0);
  const expected = await expectedLab(context, print.conditionId, condition.process, print.deviceValues);
  const off = deltaE2000(lab, labAt(expected, rows[input.patch - 1]));
  const other = input.sure === true ? undefined : patchBeside(lab, off, input, strips, expected);
  if (other !== undefined)
    return {
      ok: false,
      looksLike: other,
      words: `This is ${off.toFixed(0)} ΔE00 from what patch ${input.patch} of strip ${input.strip} should give, and looks like patch ${other.patch} of strip ${other.strip}. Measure it again, or keep it as it is.`,
    };
  const stored = await unitOfWork(context, (inner) =>
    storeStrips(inner, { ...data, instrument: form.instrument }, { ...form.keep, strips: [strip], nowMs }),
  );
  const { complete, readingId } = stored;
  return { ok: true, measured: labToHex(lab), off, complete, readingId };
}

interface PatchForm extends Pick<StripRow, 'kind' | 'grid' | 'values'> {
  readonly instrument: { readonly id: number } | undefined;
  readonly keep: Pick<StripsToStore, 'mode' | 'source' | 'told'>;
}

async function patchForm(
  context: Context,
  data: DeskData,
  { strip, mode, measured, lab }: PatchInput,
): Promise<PatchForm> {
  if ((measured === undefined) === (lab === undefined))
    throw new Problem(
      'bad-input',
      'A patch is given as it was measured, or by its L*, a* and b*.',
      'Give one of both.',
      'lab',
    );
  if (measured === undefined)
    return {
      ...{ kind: 'xyz', grid: { startNm: 0, stepNm: 0, count: 0 } },
      values: Float64Array.from(labToXyz(lab ?? [0, 0, 0], WHITE_D50_MEASURED)),
      instrument: undefined,
      keep: { mode, source: 'file', told: JSON.stringify(TYPED) },
    };
  const { instrument, startNm, stepNm, spectrum } = measured;
  const { id } = await requireReader(context, data, instrument, mode);
  return {
    ...{ kind: 'spectra', instrument: { id } },
    ...spectraOf({ strip, startNm, stepNm, spectra: [spectrum] }, 1),
    keep: { mode, source: 'desk' },
  };
}

/** The patch beside the one that was asked for that a colour looks like: a hand slips by one place. */
function patchBeside(
  lab: Lab,
  off: number,
  { strip, patch }: PatchInput,
  strips: DeskData['chart']['layout']['pages'][number],
  expected: Float64Array,
): { readonly strip: number; readonly patch: number } | undefined {
  if (off < FAR) return undefined;
  const beside = [-1, 0, 1].flatMap((down) =>
    [-1, 0, 1].map((along) => ({ strip: strip + down, patch: patch + along })),
  );
  return beside.find((place) => {
    const row = strips[place.strip - 1]?.[place.patch - 1];
    return row !== undefined && deltaE2000(lab, labAt(expected, row)) * NEARER < off;
  });
}
