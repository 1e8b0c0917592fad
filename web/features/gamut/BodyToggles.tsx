'use client';

import { ToggleButton, ToggleButtonGroup } from '@mui/material';
import type { BodyPaint, BodyStyle } from './bodyStyle';

/** How the solid body is drawn, and which of its colours. */
export function BodyToggles({
  style,
  paint,
  onStyle,
  onPaint,
}: {
  style: BodyStyle;
  paint: BodyPaint;
  onStyle: (style: BodyStyle) => void;
  onPaint: (paint: BodyPaint) => void;
}) {
  return (
    <>
      <ToggleButtonGroup
        exclusive
        size="small"
        value={style}
        aria-label="Body"
        onChange={(_, chosen: BodyStyle | null) => chosen !== null && onStyle(chosen)}
      >
        <ToggleButton value="solid">solid</ToggleButton>
        <ToggleButton value="clear">clear</ToggleButton>
        <ToggleButton value="lines">lines</ToggleButton>
      </ToggleButtonGroup>
      <ToggleButtonGroup
        exclusive
        size="small"
        value={paint}
        aria-label="Colours of the body"
        onChange={(_, chosen: BodyPaint | null) => chosen !== null && onPaint(chosen)}
      >
        <ToggleButton value="own">all colours</ToggleButton>
        <ToggleButton value="beyond">what only it holds</ToggleButton>
      </ToggleButtonGroup>
    </>
  );
}
