import { createRequire } from 'node:module';
import PDFDocument from 'pdfkit';

const require = createRequire(import.meta.url);
// The web's own faces; woff, because pdfkit's subsetter stumbles over woff2.
const PLAIN = require.resolve('@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-400-normal.woff');
const BOLD = require.resolve('@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-700-normal.woff');

export const INK = '#1B2430';
export const MUTED = '#55606E';
export const RIM = '#1F3A63';
export const MARGIN = 42;

export type Paper = 'A4' | 'LETTER';

interface Say {
  readonly bold?: boolean;
  readonly size?: number;
  readonly color?: string;
  readonly indent?: number;
  readonly gap?: number;
}

/** A sheet of paper that is written on from the top, with the rim of our panels and a numbered foot. */
export interface Sheet {
  readonly pdf: PDFKit.PDFDocument;
  readonly width: number;
  /** Begins a new page when less than this is left. */
  readonly room: (needed: number) => void;
  readonly say: (text: string, how?: Say) => void;
  /** Numbers the pages and answers the bytes. */
  readonly end: (foot: string) => Promise<Buffer>;
}

export function openSheet(title: string, paper: Paper): Sheet {
  const pdf = new PDFDocument({ size: paper, margin: MARGIN, bufferPages: true, info: { Title: title, Creator: 'Broth Board' } });
  const chunks: Buffer[] = [];
  pdf.on('data', (chunk: Buffer) => chunks.push(chunk));
  const done = new Promise<void>((finish) => pdf.on('end', finish));
  pdf.registerFont('plain', PLAIN);
  pdf.registerFont('bold', BOLD);
  const width = pdf.page.width - 2 * MARGIN;
  const room = (needed: number): void => {
    if (pdf.y + needed > pdf.page.height - MARGIN - 16) pdf.addPage();
  };
  pdf.rect(MARGIN, MARGIN - 8, width, 4).fill(RIM);
  pdf.y = MARGIN + 2;
  return {
    pdf,
    width,
    room,
    say: (text, { bold = false, size = 10, color = INK, indent = 0, gap = 2 } = {}) => {
      pdf
        .font(bold ? 'bold' : 'plain')
        .fontSize(size)
        .fillColor(color);
      room(pdf.heightOfString(text, { width: width - indent }));
      pdf.text(text, MARGIN + indent, pdf.y, { width: width - indent });
      pdf.y += gap;
    },
    end: async (foot) => {
      const pages = pdf.bufferedPageRange();
      for (let index = 0; index < pages.count; index += 1) {
        pdf.switchToPage(index);
        // Below the margin: pdfkit would otherwise begin a new page for it.
        pdf.page.margins.bottom = 0;
        pdf
          .font('plain')
          .fontSize(8)
          .fillColor(MUTED)
          .text(`${foot} · page ${String(index + 1)} of ${String(pages.count)}`, MARGIN, pdf.page.height - MARGIN + 8, { width, align: 'center', lineBreak: false });
      }
      pdf.end();
      await done;
      return Buffer.concat(chunks);
    },
  };
}
