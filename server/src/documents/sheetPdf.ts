import { INK, MARGIN, MUTED, RIM, openSheet } from './paper';
import type { Paper } from './paper';
import type { SheetBlocks } from './sheetBlocks';

/** The batch sheet on paper, to be ticked with a pen. */

const AMOUNT_WIDTH = 92;
const ALSO_WIDTH = 66;

/** A PDF of the sheet; answers its bytes. */
export async function sheetPdf(blocks: SheetBlocks, paper: Paper): Promise<Buffer> {
  const { pdf, width, room, say, end } = openSheet(`${blocks.title}, ${blocks.subtitle}`, paper);
  say(blocks.title, { bold: true, size: 20, gap: 0 });
  say(blocks.subtitle, { bold: true, size: 11, color: RIM, gap: 6 });
  for (const fact of blocks.facts) say(fact, { size: 9.5, gap: 1 });
  pdf.y += 6;
  for (const step of blocks.steps) {
    room(46);
    pdf
      .lineWidth(0.8)
      .strokeColor(INK)
      .rect(MARGIN, pdf.y + 1.5, 9, 9)
      .stroke();
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
  return end(`${blocks.foot} · ${blocks.title}`);
}
