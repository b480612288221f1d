import { createRequire } from 'node:module';
import PDFDocument from 'pdfkit';
import type { SheetBlocks } from './sheetBlocks';

/** The batch sheet on paper, to be ticked with a pen. */

const require = createRequire(import.meta.url);
// The web's own faces; woff, because pdfkit's subsetter stumbles over woff2.
const PLAIN = require.resolve('@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-400-normal.woff');
const BOLD = require.resolve('@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-700-normal.woff');
const INK = '#1B2430';
const MUTED = '#55606E';
const RIM = '#1F3A63';
const MARGIN = 42;
const AMOUNT_WIDTH = 92;
const ALSO_WIDTH = 66;

export type Paper = 'A4' | 'LETTER';

/** A PDF of the sheet; answers its bytes. */
export async function sheetPdf(blocks: SheetBlocks, paper: Paper): Promise<Buffer> {
  const pdf = new PDFDocument({ size: paper, margin: MARGIN, bufferPages: true, info: { Title: `${blocks.title}, ${blocks.subtitle}`, Creator: 'Broth Board' } });
  const chunks: Buffer[] = [];
  pdf.on('data', (chunk: Buffer) => chunks.push(chunk));
  const done = new Promise<void>((finish) => pdf.on('end', finish));
  pdf.registerFont('plain', PLAIN);
  pdf.registerFont('bold', BOLD);
  const width = pdf.page.width - 2 * MARGIN;
  const room = (needed: number): void => {
    if (pdf.y + needed > pdf.page.height - MARGIN - 16) pdf.addPage();
  };
  const say = (
    text: string,
    { bold = false, size = 10, color = INK, indent = 0, gap = 2 }: { bold?: boolean; size?: number; color?: string; indent?: number; gap?: number } = {},
  ): void => {
    pdf
      .font(bold ? 'bold' : 'plain')
      .fontSize(size)
      .fillColor(color);
    room(pdf.heightOfString(text, { width: width - indent }));
    pdf.text(text, MARGIN + indent, pdf.y, { width: width - indent });
    pdf.y += gap;
  };
  const tick = (): void => {
    pdf
      .lineWidth(0.8)
      .strokeColor(INK)
      .rect(MARGIN, pdf.y + 1.5, 9, 9)
      .stroke();
  };

  pdf.rect(MARGIN, MARGIN - 8, width, 4).fill(RIM);
  pdf.y = MARGIN + 2;
  say(blocks.title, { bold: true, size: 20, gap: 0 });
  say(blocks.subtitle, { bold: true, size: 11, color: RIM, gap: 6 });
  for (const fact of blocks.facts) say(fact, { size: 9.5, gap: 1 });
  pdf.y += 6;
  for (const step of blocks.steps) {
    room(46);
    tick();
    say(step.head, { bold: true, size: 11, indent: 16, gap: 0 });
    say(step.minutes, { size: 9, color: MUTED, indent: 16 });
    for (const line of step.lines) {
      const at = MARGIN + 30;
      const rest = width - 30 - AMOUNT_WIDTH - ALSO_WIDTH;
      pdf.font('plain').fontSize(10);
      const height = Math.max(13, pdf.heightOfString(line.what, { width: rest }));
      room(height);
      const { y } = pdf;
      pdf
        .lineWidth(0.6)
        .strokeColor(MUTED)
        .rect(MARGIN + 16, y + 2, 8, 8)
        .stroke();
      pdf.font('bold').fillColor(INK).text(line.amount, at, y, { width: AMOUNT_WIDTH });
      pdf
        .font('plain')
        .fontSize(8.5)
        .fillColor(MUTED)
        .text(line.also, at + AMOUNT_WIDTH, y + 1, { width: ALSO_WIDTH });
      pdf
        .font('plain')
        .fontSize(10)
        .fillColor(INK)
        .text(line.what, at + AMOUNT_WIDTH + ALSO_WIDTH, y, { width: rest });
      pdf.y = y + height + 1;
    }
    if (step.check !== null) say(`Done when: ${step.check}`, { indent: 16, gap: 1 });
    if (step.caution !== null) say(`! ${step.caution}`, { bold: true, indent: 16, gap: 1 });
    if (step.why !== '') say(step.why, { size: 9, color: MUTED, indent: 16, gap: 1 });
    pdf.y += 5;
  }
  room(40);
  say('To know', { bold: true, size: 11, gap: 1 });
  for (const note of blocks.notes) say(note, { size: 9.5, gap: 1 });
  const pages = pdf.bufferedPageRange();
  for (let index = 0; index < pages.count; index += 1) {
    pdf.switchToPage(index);
    // Below the margin: pdfkit would otherwise begin a new page for it.
    pdf.page.margins.bottom = 0;
    pdf
      .font('plain')
      .fontSize(8)
      .fillColor(MUTED)
      .text(`${blocks.foot} · ${blocks.title} · page ${String(index + 1)} of ${String(pages.count)}`, MARGIN, pdf.page.height - MARGIN + 8, {
        width,
        align: 'center',
        lineBreak: false,
      });
  }
  pdf.end();
  await done;
  return Buffer.concat(chunks);
}
