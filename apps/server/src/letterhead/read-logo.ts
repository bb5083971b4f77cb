import type { Checked } from '@yosoku/core/problem';
import { PNG } from 'pngjs';
import { LOGO_BYTES, LOGO_EDGE, type LOGO_KINDS } from '@yosoku/core/paper/letterhead';
import { cleanSvg } from './clean-svg';

/** A logo as it is kept and printed: written anew, with nothing in it but what is seen. */
export interface Logo {
  readonly kind: (typeof LOGO_KINDS)[number];
  readonly bytes: Uint8Array;
  /** Of the drawing, or pixels. */
  readonly width: number;
  readonly height: number;
}

export type ReadLogo = Checked<{ readonly logo: Logo }>;

const refused = (message: string): ReadLogo => ({ ok: false, message });
const neither = (): ReadLogo => refused('This is neither an SVG drawing nor a PNG picture.');
const damaged = (): ReadLogo => refused('This PNG picture is damaged, or a part of it is missing.');

const PNG_MARK = Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]);
/** Where the header of a PNG says them. Source: PNG Specification (Third Edition), W3C, §11.2.1. */
const WIDTH_AT = 16;
const HEIGHT_AT = 20;
const INTERLACE_AT = 28;
/** The signature and the whole of that header, bytes. */
const HEADER_END = 33;

/**
 * Reads a logo by what it is, not by how it is called: SVG or PNG.
 * @returns it written anew, or why it is not taken, in words.
 */
export function readLogo(bytes: Uint8Array): ReadLogo {
  if (bytes.length > LOGO_BYTES) return refused(`A logo has at most ${LOGO_BYTES / 1024 / 1024} MB. It was not kept.`);
  const buffer = Buffer.from(bytes);
  if (buffer.subarray(0, PNG_MARK.length).equals(PNG_MARK)) return readPng(buffer);
  let text: string;
  try {
    text = new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return neither();
  }
  if (!/<([\w-]+:)?svg[\s>]/.test(text)) return neither();
  const clean = cleanSvg(text);
  if (!clean.ok) return clean;
  const { svg, width, height } = clean;
  return { ok: true, logo: { kind: 'svg', bytes: new TextEncoder().encode(svg), width, height } };
}

function readPng(buffer: Buffer): ReadLogo {
  if (buffer.length < HEADER_END) return damaged();
  const [width, height] = [buffer.readUInt32BE(WIDTH_AT), buffer.readUInt32BE(HEIGHT_AT)];
  // Looked at before anything is unpacked: a few bytes may call for gigabytes.
  if (width > LOGO_EDGE || height > LOGO_EDGE)
    return refused(`A logo has at most ${LOGO_EDGE} pixels a side; this one has ${width} × ${height}.`);
  if (buffer[INTERLACE_AT] !== 0) return refused('This PNG is interlaced. Save it again without that.');
  try {
    const { data } = PNG.sync.read(buffer);
    const isSolid = data.every((value, at) => at % 4 !== 3 || value === 255);
    const png = new PNG({ width, height });
    png.data = data;
    // A PDF keeps what can be seen through apart from the colours, which takes a while: only where there is any.
    const bytes = PNG.sync.write(png, { colorType: isSolid ? 2 : 6 });
    return { ok: true, logo: { kind: 'png', bytes: new Uint8Array(bytes), width, height } };
  } catch {
    return damaged();
  }
}
