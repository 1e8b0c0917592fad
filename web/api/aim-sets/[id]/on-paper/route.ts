import { askedWhite, makePaperAims, previewPaperAims } from '@melto/services/conformity/paperAims';
import { MAKE_PAPER_AIMS, PREVIEW_PAPER_AIMS } from '@/endpoints/conformity';
import { answering, changing } from '@/server/route';

export const GET = answering(PREVIEW_PAPER_AIMS, ({ context, params, query: { L, a, b, ...white } }) =>
  previewPaperAims(
    context,
    params.id,
    askedWhite({
      ...white,
      lab: L === undefined || a === undefined || b === undefined ? undefined : [L, a, b],
    }),
  ),
);

export const POST = changing(MAKE_PAPER_AIMS, ({ context, params, body: { name, versionOf, ...white } }) =>
  makePaperAims(context, { name, versionOf }, params.id, askedWhite(white)),
);
