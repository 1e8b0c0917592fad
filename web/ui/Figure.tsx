'use client';

import { useRef, useState } from 'react';
import type { ReactNode } from 'react';
import { csvText } from '@melto/core/text/csvText';
import { save } from './save';

/** The numbers behind a picture. */
export interface FigureTable {
  readonly head: readonly string[];
  readonly rows: readonly (readonly (string | number)[])[];
}

/** A panel with a picture that can be seen as its table and saved as PNG or CSV. */
export function Figure({
  title,
  note,
  table,
  children,
  figures,
}: {
  title: string;
  note?: string;
  table: FigureTable;
  children: ReactNode;
  figures?: ReactNode;
}) {
  const [asTable, setAsTable] = useState(false);
  const picture = useRef<HTMLDivElement>(null);
  const name = title.toLowerCase().replaceAll(' ', '-');
  return (
    <div className="panel figure">
      <header>
        <h2>{title}</h2>
        {note !== undefined && <span className="quiet grow">{note}</span>}
        <span className="row small figure-acts">
          <button type="button" className="plain" aria-pressed={asTable} onClick={() => setAsTable(!asTable)}>
            {asTable ? 'picture' : 'table'}
          </button>
          <button
            type="button"
            className="plain"
            onClick={() => save(`${name}.csv`, new Blob([csv(table)], { type: 'text/csv' }))}
          >
            CSV
          </button>
          <button
            type="button"
            className="plain"
            disabled={asTable}
            onClick={() => void savePng(picture.current, `${name}.png`)}
          >
            PNG
          </button>
        </span>
      </header>
      {asTable ? (
        <div style={{ height: 190, overflow: 'auto' }} tabIndex={0}>
          <table className="table tight" style={{ border: 0 }}>
            <thead>
              <tr>
                {table.head.map((word) => (
                  <th key={word} className="num">
                    {word}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {table.rows.map((row, i) => (
                <tr key={i}>
                  {row.map((value, k) => (
                    <td key={k} className="num">
                      {value}
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      ) : (
        <div ref={picture}>{children}</div>
      )}
      {figures}
    </div>
  );
}

export const csv = ({ head, rows }: FigureTable): string => csvText([head, ...rows]);

const SCALE = 2;

/** Draws the picture's SVG at twice its size; variables of the theme are resolved first. */
async function savePng(picture: HTMLElement | null, name: string): Promise<void> {
  const svg = picture?.querySelector('svg');
  if (svg === null || svg === undefined) return;
  const { width, height } = svg.getBoundingClientRect();
  const copy = svg.cloneNode(true) as SVGSVGElement;
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg');
  copy.setAttribute('width', String(width));
  copy.setAttribute('height', String(height));
  const style = getComputedStyle(document.documentElement);
  const text = new XMLSerializer()
    .serializeToString(copy)
    .replace(/var\((--[A-Za-z]+)\)/g, (_, variable: string) => style.getPropertyValue(variable).trim());
  const image = new Image();
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(text)}`;
  await image.decode();
  const canvas = document.createElement('canvas');
  canvas.width = width * SCALE;
  canvas.height = height * SCALE;
  const context = canvas.getContext('2d');
  if (context === null) return;
  context.fillStyle = style.getPropertyValue('--surface').trim();
  context.fillRect(0, 0, canvas.width, canvas.height);
  context.drawImage(image, 0, 0, canvas.width, canvas.height);
  canvas.toBlob((blob) => blob !== null && save(name, blob), 'image/png');
}
